/** The garden last worked in on this device; decides only where the front door leads. */
export const LAST_GARDEN_KEY = 'klados.last-garden'
