/** Heights, depths, pulls and pressures at posts lie well within these. */
export const MOST_M = 1e3
export const MOST_N = 1e9
