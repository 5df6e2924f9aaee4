import { hash, verify } from '@node-rs/argon2'

/** Argon2id with the package's defaults (19 MiB, 2 passes), the first choice of the OWASP cheat sheet of 2023. */
export function hashPassword(password: string): Promise<string> {
  return hash(password)
}

let decoy: Promise<string> | undefined

/** Takes as long for an address that nobody has as for a wrong password, so that timing does not tell them apart. */
export async function passwordFits(stored: string | undefined, password: string): Promise<boolean> {
  decoy ??= hashPassword('nobody has this password')
  const fits = await verify(stored ?? (await decoy), password)
  return stored !== undefined && fits
}
