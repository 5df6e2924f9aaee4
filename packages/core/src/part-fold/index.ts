export { packed, unpacked } from './pack.ts'
export { partOf, subjectOf } from './part.ts'
export { PART_FOLD_RULES, foldPart, goOnPart } from './part-fold.ts'
export type { PartFold } from './part-fold.ts'
