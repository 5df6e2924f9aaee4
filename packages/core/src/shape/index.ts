export {
  above,
  choice,
  day,
  flag,
  list,
  noneOr,
  number,
  oneOf,
  part,
  path,
  point,
  record,
  text,
  uuid,
  v1,
  whole,
} from './shape.ts'
export type { Shape, Shapes, ValueOf, ValuesOf } from './shape.ts'
