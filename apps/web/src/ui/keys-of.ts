/** The keys of a record with their own type, so that each can be looked up among the words. */
export const keysOf = <K extends string>(record: Readonly<Partial<Record<K, unknown>>>): K[] =>
  Object.keys(record) as K[]
