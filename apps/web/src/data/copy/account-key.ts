/** Whose copy of a garden lies on this device; without one nothing is looked for at the start. */
export const COPIED_ACCOUNT_KEY = 'klados.copy-of'
