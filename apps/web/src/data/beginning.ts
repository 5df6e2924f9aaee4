/** What somebody may have who has nothing here yet, the most usual first. */
export const FIRST_PLACES = ['wall', 'fence', 'row', 'bed', 'terrace', 'tub', 'bench'] as const
type FirstPlace = (typeof FIRST_PLACES)[number]

/** What was said at the door: it outlives signing up in this window, and is then where one begins. */
const KEY = 'klados.beginning'

export const rememberBeginning = (kind: FirstPlace): void => sessionStorage.setItem(KEY, kind)
export const rememberedBeginning = (): FirstPlace | null =>
  FIRST_PLACES.find((kind) => kind === sessionStorage.getItem(KEY)) ?? null
export const forgetBeginning = (): void => sessionStorage.removeItem(KEY)
