import { useState } from 'react'

/** A list while its members stay the same, the very list that it was: what is made of it need not be made again. */
export function useSame<T>(list: readonly T[]): readonly T[] {
  const [known, keep] = useState(list)
  if (known === list || (known.length === list.length && known.every((one, i) => one === list[i])))
    return known
  keep(list)
  return list
}
