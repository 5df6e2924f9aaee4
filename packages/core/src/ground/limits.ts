/** Heights, depths, pulls and pressures at posts lie well within these. */
/** Holes for posts under roofs and covers are bored with one auger, whatever the post, and filled with concrete; metres. */
export const FOOT_M = 0.3
export const MOST_M = 1e3
export const MOST_N = 1e9
