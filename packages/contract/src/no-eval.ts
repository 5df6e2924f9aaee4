import { z } from 'zod'

// Pages forbid code made from text; the schema package would try it once, be refused, and leave an alarm in
// the console.
if ('document' in globalThis) z.config({ jitless: true })
