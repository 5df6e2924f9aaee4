/** More tiers or dragged nodes than this in one frame is a slip or an attack, not a garden. */
export const MAX_TIERS = 40
export const MAX_DRAGGED = 500
/** Entries that one request may append. */
export const MAX_ENTRIES = 500
/** Entries that one request may read. */
export const MAX_PAGE = 5000
