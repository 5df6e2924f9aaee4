import { readFileSync, writeFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { standardCatalogue } from '@klados/core/catalogue'
import { expect, it } from 'vitest'
import { drawPlace, layOut } from '../plan/lay-out.ts'
import { sampleDesign, sampleWall } from './sample-wall.ts'

const file = fileURLToPath(new URL('./sample-drawing.json', import.meta.url))

// The door shows it, and does not load for that what lays out frames and draws them. `NEW_SAMPLE=1` makes it anew.
it('the drawing on the door is what the sample wall and its design come to', () => {
  const frame = layOut(sampleWall, sampleDesign, standardCatalogue)
  const drawn = drawPlace(sampleWall, [frame], standardCatalogue)
  const text = JSON.stringify({ wall: sampleWall, list: drawn })
  if (process.env.NEW_SAMPLE) writeFileSync(file, `${text}\n`)
  expect(JSON.parse(readFileSync(file, 'utf8'))).toEqual(JSON.parse(text))
})
