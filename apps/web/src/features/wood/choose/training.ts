import type { Place, Plant } from '@klados/contract'
import type { ChoiceRecord } from '@klados/core/choices'
import { replayChoices, replayPlants } from '@klados/core/journal'
import type { JournalEntry, PlantRecord } from '@klados/core/journal'
import { findSystem, levelWires, openQuestions, systemsFor, viewPlant } from '@klados/core/training'
import type { PlantView, Position, Question, TrainingSystem } from '@klados/core/training'
import { daysBetween, woodYear } from '@klados/core/season'
import { useMemo } from 'react'
import { useGardenQuery } from '../../../data/api.ts'
import { selectByPlant } from '../../../data/entries.ts'
import { useAppSelector } from '../../../data/store.ts'
import { footOf } from '../foot.ts'
import type { WoodBenchData } from '../use-bench.ts'

/** Everything that the bench knows of how a plant is trained. */
export interface Training {
  readonly plant: Plant
  readonly view: PlantView
  readonly system: TrainingSystem | null
  readonly systems: readonly TrainingSystem[]
  /** What it asks at this stage; of several the grower takes one, else the first that is not answered. */
  readonly questions: readonly Question[]
  readonly question: Question | null
  /** The places that the system gives a plant, and what stands at each. */
  readonly positions: readonly Position[]
  /** Choices of this plant, the latest first. */
  readonly choices: readonly ChoiceRecord[]
  readonly planned: ChoiceRecord | null
  /** The question as it was answered and done this season: it is not asked again by itself. */
  readonly answered: ChoiceRecord | null
  readonly record: PlantRecord | null
}

const NONE: readonly JournalEntry[] = []

/** Prunings weighed in this winter count for its budget: so many days back. */
const WINTER_DAYS = 150

/** A plant as its system sees it on a day. */
export const viewOfPlant = (
  place: Place,
  data: WoodBenchData,
  plant: Plant,
  on: string,
  latitudeDeg: number | null,
  pruningsKg: number | null,
): PlantView | null => {
  const foot = footOf(place, data, plant)
  return viewPlant({
    plant: {
      id: plant.id,
      ...plant.body,
      footYM: foot.yM,
      footZM: foot.zM ?? 0,
    },
    pieces: data.state.pieces,
    frames: data.trainedOn,
    othersXM: data.plants.filter((one) => one.id !== plant.id).map((one) => one.body.xM),
    widthM: place.body.widthM,
    on,
    hemisphere: data.hemisphere,
    latitudeDeg,
    goal: plant.body.budGoal,
    pruningsKg,
  })
}

export function useTraining(
  gardenId: string,
  place: Place,
  data: WoodBenchData,
  plant: Plant | null,
  on: string,
  asked: string | null,
): Training | null {
  const { data: garden } = useGardenQuery(gardenId)
  const latitudeDeg = garden?.latitudeDeg ?? null
  const byPlant = useAppSelector(selectByPlant)
  const own = (plant && byPlant.get(plant.id)) ?? NONE
  const record = useMemo(
    () => (plant ? (replayPlants(own, on).get(plant.id) ?? null) : null),
    [own, plant, on],
  )
  const choices = useMemo(() => [...replayChoices(own, on).values()].reverse(), [own, on])
  return useMemo(() => {
    if (!plant) return null
    const weighed = record?.readings
      .filter((reading) => reading.what === 'prunings' && daysBetween(reading.on, on) <= WINTER_DAYS)
      .at(-1)
    const view = viewOfPlant(place, data, plant, on, latitudeDeg, weighed?.value ?? null)
    if (!view) return null
    const system = findSystem(plant.body.system)
    const systems = systemsFor(plant.body.kindId)
    const isFit = system !== null && (!system.needsWires || levelWires(view).length > 0)
    const planned = choices.find(({ state }) => state === 'planned') ?? null
    const questions = isFit && system ? openQuestions(system, view) : []
    const season = woodYear(on, data.hemisphere)
    const answerOf = (question: Question | undefined) =>
      choices.find(
        ({ state, doneOn, question: code }) =>
          state === 'done' && code === question?.code && woodYear(doneOn ?? on, data.hemisphere) === season,
      ) ?? null
    const question =
      questions.find(({ code }) => code === asked) ??
      questions.find((one) => answerOf(one) === null) ??
      questions[0]
    const answered = answerOf(question)
    return {
      plant,
      view,
      system,
      systems,
      questions,
      question: question ?? null,
      positions: isFit && system ? system.positions(view) : [],
      choices,
      planned,
      answered,
      record,
    }
  }, [plant, record, choices, data, place, on, latitudeDeg, asked])
}
