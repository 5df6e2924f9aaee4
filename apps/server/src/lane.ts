/**
 * Work that would hold the server up if it were done at once: a list is gone through a few at a time, with
 * everybody else's requests between, and one list after the other, so that twenty of them take no more of
 * each moment than one.
 */
export interface Lane {
  readonly map: <From, To>(list: readonly From[], each: (one: From) => To) => Promise<To[]>
}

/** So few are done where they stand. */
const AT_ONCE = 20

export function createLane(): Lane {
  let last: Promise<unknown> = Promise.resolve()
  return {
    map: async (list, each) => {
      if (list.length <= AT_ONCE) return list.map(each)
      const turn = last.then(async () => {
        const done: ReturnType<typeof each>[] = []
        for (let from = 0; from < list.length; from += AT_ONCE) {
          done.push(...list.slice(from, from + AT_ONCE).map(each))
          await new Promise((resolve) => setImmediate(resolve))
        }
        return done
      })
      last = turn.catch(() => undefined)
      return turn
    },
  }
}
