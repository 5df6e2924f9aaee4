import { benchCutting, benchFrame, benchReplay } from './core.ts'
import { benchJournal } from './journal.ts'

await benchFrame()
await benchCutting()
await benchReplay()
await benchJournal()
