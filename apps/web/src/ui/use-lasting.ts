import { useCallback, useLayoutEffect, useRef } from 'react'

/**
 * The same function through every render, which does what the latest one would: for what is pressed, not for what is
 * drawn with. What is given it need not be drawn again because of it.
 */
export function useLasting<A extends readonly unknown[]>(act: (...args: A) => void): (...args: A) => void {
  const latest = useRef(act)
  useLayoutEffect(() => {
    latest.current = act
  })
  return useCallback((...args: A) => latest.current(...args), [])
}
