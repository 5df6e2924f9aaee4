import fc from 'fast-check'
import { within } from './runs.ts'

/** A property that takes long by the chance of its figures is tried as often as there is time for: no longer than this. */
fc.configureGlobal({ interruptAfterTimeLimit: within(2500) })
