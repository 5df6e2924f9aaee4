import { contextOf, deedsOf, woodDone } from '../src/choices/index.ts'
import { replayWood } from '../src/journal/index.ts'
import type { JournalEntry } from '../src/journal/index.ts'
import { findSystem, openQuestions, propose, viewPlant, isRefused } from '../src/training/index.ts'
import type {
  ExpectedPiece,
  Overrides,
  PlantView,
  Proposal,
  Question,
  TrainingInput,
} from '../src/training/index.ts'
import { freeWay } from '../src/wood/index.ts'
import type { Stretch } from '../src/wood/index.ts'

/** A plant on its frame that is lived with: what is entered, chosen and carried out goes into its journal. */
export class Life {
  private readonly entries: JournalEntry[] = []
  private count = 0
  constructor(
    readonly systemId: string,
    readonly plant: TrainingInput['plant'],
    readonly frames: TrainingInput['frames'],
    readonly widthM: number,
  ) {}

  write(kind: string, at: string, body: object): void {
    this.count++
    this.entries.push({
      id: `00000000-0000-7000-8000-${String(this.count).padStart(12, '0')}`,
      placeId: 'place',
      plantId: this.plant.id,
      supersedes: null,
      kind,
      at,
      body,
    } as unknown as JournalEntry)
  }

  grow(
    at: string,
    pieceId: string,
    on: { readonly pieceId: string; readonly alongM: number } | null,
    way: readonly Stretch[],
    rest: { readonly seasonsOld?: number; readonly baseMm?: number; readonly side?: string | null } = {},
  ): void {
    this.write('piece.grew', at, {
      v: 3,
      pieceId,
      parent: on ? { on: 'piece', ...on } : { on: 'crown', leadId: null },
      way,
      seasonsOld: 0,
      baseMm: 9,
      tipMm: null,
      buds: null,
      side: null,
      role: null,
      isTypical: false,
      ...rest,
    })
  }

  /** The wood that its system expects after so many years. */
  plantAs(at: string, years: number): void {
    for (const one of findSystem(this.systemId)!.skeleton(this.viewOn(at), years)) this.add(at, one)
  }

  private add(at: string, { name, on, alongM, path, way, seasonsOld, baseMm, side }: ExpectedPiece): void {
    const under = on === null ? null : { pieceId: on, alongM }
    this.grow(at, name, under, way ?? freeWay(path), { seasonsOld, baseMm, side })
  }

  viewOn(on: string): PlantView {
    return viewPlant({
      plant: this.plant,
      pieces: replayWood(this.entries).pieces,
      frames: this.frames,
      othersXM: [],
      widthM: this.widthM,
      on,
      hemisphere: 'north',
      latitudeDeg: 50,
      goal: null,
      pruningsKg: null,
    })!
  }

  ask(on: string, code: string): Question {
    const asked = openQuestions(findSystem(this.systemId)!, this.viewOn(on))
    const question = asked.find((one) => one.code === code)
    if (!question)
      throw new Error(`${code} is not asked on ${on}, but ${asked.map((one) => one.code).join()}`)
    return question
  }

  asked(on: string): string[] {
    return openQuestions(findSystem(this.systemId)!, this.viewOn(on)).map(({ code }) => code)
  }

  /** The proposal for a question, carried out that day. */
  do(on: string, code: string, overrides: Overrides = new Map()): Proposal {
    const question = this.ask(on, code)
    const usual = propose(question)
    const proposal = propose(question, overrides)
    if (isRefused(usual) || isRefused(proposal)) throw new Error(`${code} is refused on ${on}`)
    const view = this.viewOn(on)
    const deeds = deedsOf(view, question, proposal, usual, overrides, () => '')
    for (const { kind, body } of woodDone(
      deeds,
      contextOf(view, () => ''),
    ))
      this.write(kind, on, body)
    return proposal
  }

  /** Where a piece lies on a day, from base to tip. */
  lineOf(on: string, pieceId: string) {
    return this.viewOn(on).stem(pieceId)!.piece.path
  }
}
