import type { FastifyInstance } from 'fastify'
import { AppError } from './errors.ts'

/** Nothing that anybody sends nests deeper than a quarter of this. */
const MAX_DEPTH = 40

/**
 * JSON bodies as Fastify reads them, but for one thing: a megabyte of brackets takes the engine's parser a
 * third of a second and forty megabytes, in which nobody else is served, so the depth is looked at first.
 */
export function useShallowJson(app: FastifyInstance): void {
  const parse = app.getDefaultJsonParser('error', 'error')
  app.addContentTypeParser('application/json', { parseAs: 'string' }, (request, body, done) => {
    const text = body as string
    if (isDeep(text)) done(new AppError('request/malformed', 'The request is nested too deeply'))
    else void parse(request, text, done)
  })
}

export function isDeep(text: string): boolean {
  let depth = 0
  let isInString = false
  for (let at = 0; at < text.length; at++) {
    const character = text.charCodeAt(at)
    if (isInString) {
      if (character === 0x5c) at++
      else if (character === 0x22) isInString = false
    } else if (character === 0x22) isInString = true
    else if (character === 0x5b || character === 0x7b) {
      if (++depth > MAX_DEPTH) return true
    } else if (character === 0x5d || character === 0x7d) depth--
  }
  return false
}
