/** Parts of the bench that the line under the drawing and skip links lead to: each has the focus when it is reached. */
export const JUMPS = {
  drawing: 'bench-drawing',
  figures: 'bench-figures',
  checks: 'bench-checks',
  save: 'bench-save',
  plant: 'bench-plant',
} as const
