import { hash, verify } from '@node-rs/argon2'
import { ZxcvbnFactory } from '@zxcvbn-ts/core'
import * as common from '@zxcvbn-ts/language-common'
import * as english from '@zxcvbn-ts/language-en'
import { AppError } from '../errors.ts'

/**
 * Argon2id with the package's defaults (19 MiB, 2 passes), the first choice of the OWASP cheat sheet of 2023.
 */
export function hashPassword(password: string): Promise<string> {
  return hash(password)
}

let decoy: Promise<string> | undefined

/**
 * Takes as long for an address that nobody has as for a wrong password, so that timing does not tell them
 * apart.
 */
export async function passwordFits(stored: string | undefined, password: string): Promise<boolean> {
  decoy ??= hashPassword('nobody has this password')
  const fits = await verify(stored ?? (await decoy), password)
  return stored !== undefined && fits
}

/** Of 0 to 4: 3 is held to resist guessing at a hash that got loose, 2 guessing at the door alone. */
const LEAST_SCORE = 2
/** The estimate grows with the square of the length and is settled well before this. */
const ESTIMATED_CHARACTERS = 64

let estimator: ZxcvbnFactory | undefined

/**
 * Throws `account/weak-password` for one that is guessed early: words that everybody takes, or of the account
 * itself.
 */
export function requireStrong(password: string, own: readonly string[]): void {
  estimator ??= new ZxcvbnFactory({
    dictionary: { ...common.dictionary, ...english.dictionary },
    graphs: common.adjacencyGraphs,
  })
  const inputs = own
    .flatMap((text) => [text, ...text.split(/[^\p{L}\p{N}]+/u)])
    .filter((word) => word.length > 2)
  const { score } = estimator.check(password.slice(0, ESTIMATED_CHARACTERS), inputs)
  if (score < LEAST_SCORE)
    throw new AppError(
      'account/weak-password',
      'This password is among those that are guessed first; take a sentence of your own',
    )
}
