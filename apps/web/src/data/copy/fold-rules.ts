/**
 * By which rules parts are folded, told here once more (a test holds it to core's own word) so that whoever opens a garden
 * need not load what folds.
 */
export const FOLD_RULES = 'wood 6.45, frame-log 1.7, brief 1, pack 2'

/** Gardens of no more entries are shown from the entries themselves: that is as quick, and all of it is at hand. */
export const SMALL = 3000
