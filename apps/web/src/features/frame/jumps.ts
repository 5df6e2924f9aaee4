/** Parts of the bench that the line under the drawing leads to: each has the focus when it is reached. */
export const JUMPS = { checks: 'bench-checks', save: 'bench-save', plant: 'bench-plant' } as const
