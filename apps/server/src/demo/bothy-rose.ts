import { addDays } from '@klados/core/season'
import { base, stand, tierLevels, wallWire } from './stand.ts'
import { cutInWinter, grow, placesAlong, seen } from './seasons.ts'
import type { Life } from './seasons.ts'
import type { Stand } from './stand.ts'

/** The rose of an invented cultivar on the bothy's gable, on five level wires. */
export function bothyGable(): Stand {
  const made = stand(
    {
      name: "Bothy's gable",
      kind: 'wall',
      widthM: 5.4,
      usableHeightM: 2.1,
      firstForkM: 0.6,
      facingDeg: 140,
      surface: 'brick',
    },
    {
      name: 'Five tiers',
      notes: ['For the rose'],
      design: {
        ...base,
        ...wallWire,
        plantKindId: 'climbing-rose',
        pattern: { kind: 'tiers', levels: tierLevels(0.6, 1, 1.4, 1.8, 2.2), maxSupportSpacingM: 1.8 },
      },
    },
    [{ name: 'Tarn Lantern', kindId: 'climbing-rose', xM: 0.5 }],
  )
  return made
}

/** Six summers of mains from the base, each laid in the winter after; one winter left to the wind. */
export function growRose(life: Life, year: number): void {
  const { random, plant, diary } = life
  const planted = Number(plant.plantedOn.slice(0, 4))
  for (let summer = planted + 1; summer <= year; summer++) {
    const age = summer - planted
    if (age > 1 && summer !== year - 1) cutInWinter(life, `${summer}-02-24`)
    if (summer === year - 1)
      diary.note(
        `${summer}-03-15`,
        'Left untied this winter: the long ones whipped in the wind, one broke at the base.',
      )
    const view = seen(life, addDays(`${summer}-09-10`, -1))
    const isLast = summer === year
    for (let i = 0; i < (isLast ? 4 : 2); i++)
      grow(life, `${summer}-09-10`, null, 0, {
        lengthM: Math.round((0.9 + Math.min(3, age) * 0.75 + random() * 0.6 - i * 0.45) * 100) / 100,
        baseMm: 9 + random() * 4,
        internodeM: 0.05,
        side: i === 3 && isLast ? null : 'right',
        bends: i === 2 && isLast ? 'stiff' : 'pliable',
        health: i === 3 && isLast ? 'sick' : null,
      })
    for (const stem of view.stems.filter(({ age: seasons, parent }) => seasons >= 1 && parent === null))
      for (const alongM of placesAlong(stem, 0.3, 8).slice(2))
        if (random() < 0.6)
          grow(life, `${summer}-09-10`, stem, alongM, {
            lengthM: 0.2 + random() * 0.25,
            baseMm: 4.5,
            internodeM: 0.04,
          })
  }
}
