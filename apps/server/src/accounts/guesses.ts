import type { Pool } from 'pg'
import { AppError } from '../errors.ts'

/** So many wrong guesses cost nothing; each further one makes the next wait twice as long, up to the longest. */
export interface GuessLimit {
  readonly free: number
  readonly longestS: number
}

/**
 * Runs `guess`, which throws where it is wrong, unless too many wrong ones of the same key came just before. Counted
 * where it comes from and at what it aims, together: whoever guesses slows themselves and not the account's owner.
 */
export async function guessing<T>(
  accounts: Pool,
  key: string,
  { free, longestS }: GuessLimit,
  guess: () => Promise<T>,
): Promise<T> {
  if (free === Number.POSITIVE_INFINITY) return guess()
  const { rows } = await accounts.query<{ waitS: number }>({
    name: 'take-guess',
    text: `select take_guess($1, $2, $3) as "waitS"`,
    values: [key, free, longestS],
  })
  const { waitS } = rows[0]!
  if (waitS > 0)
    throw new AppError('request/too-many', `Too many wrong tries from here; wait ${waitS} s and try again`, {
      retryAfterS: waitS,
    })
  const right = await guess()
  await accounts.query(`delete from guess where key = $1`, [key])
  return right
}
