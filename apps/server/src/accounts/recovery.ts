import { randomInt } from 'node:crypto'
import { hashToken } from './session.ts'

const CODES = 10
/** Without those that are read for one another on paper: 31 letters, so 79 bits a code, too many to be tried. */
const LETTERS = 'abcdefghjkmnpqrstuvwxyz23456789'
const GROUPS = 4
const LETTERS_OF_GROUP = 4

const newCode = (): string =>
  Array.from({ length: GROUPS }, () =>
    Array.from({ length: LETTERS_OF_GROUP }, () => LETTERS[randomInt(LETTERS.length)]).join(''),
  ).join('-')

/** Fresh codes, and what the database keeps of them. */
export function newRecoveryCodes(): { readonly codes: string[]; readonly hashes: Buffer[] } {
  const codes = Array.from({ length: CODES }, newCode)
  return { codes, hashes: codes.map(hashCode) }
}

/** As it was typed off paper: spaces, dashes and capitals do not count. */
export function hashCode(typed: string): Buffer {
  return hashToken(typed.toLowerCase().replace(/[^a-z0-9]/g, ''))
}
