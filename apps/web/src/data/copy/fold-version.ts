/**
 * Folds of other rules mean something else, and are made anew: the versions of the projections, told here once more (a
 * test holds them together) so that whoever opens a garden need not load what folds.
 */
export const FOLD_VERSION = 'wood 3, frame-log 1'
