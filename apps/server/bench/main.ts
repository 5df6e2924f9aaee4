import { benchCutting, benchFrame, benchReplay } from './core.ts'
import { benchAgainstSolver, benchCable, benchTrellis } from './mechanics.ts'
import { benchLaying } from './laying.ts'
import { benchJournal } from './journal.ts'

await benchFrame()
await benchCutting()
await benchReplay()
benchCable()
await benchAgainstSolver()
await benchTrellis()
await benchLaying()
await benchJournal()
