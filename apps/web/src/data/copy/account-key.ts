/** Whose copy of a garden lies on this device; without one nothing is looked for at the start. */
export const COPIED_ACCOUNT_KEY = 'klados.copy-of'

/** Whose copy lies on this device: whoever was signed in here last and did not sign out. */
export const copiedAccount = (): string | null => localStorage.getItem(COPIED_ACCOUNT_KEY)
