import { useEffect, useLayoutEffect, useRef } from 'react'
import type { RefObject } from 'react'

const REACHED = 'a[href], button:not(:disabled), input:not(:disabled), select:not(:disabled), summary'

/**
 * Keeps the hand where it works: what had the focus and goes away when it was pressed (a thing that is done, a form that was
 * saved) leaves it to what comes next, and not to the top of the page.
 */
export function useKeptFocus<E extends HTMLElement>(): RefObject<E | null> {
  const part = useRef<E>(null)
  const last = useRef<{ readonly element: Element; readonly around: readonly HTMLElement[] } | null>(null)
  useEffect(() => {
    const of = part.current
    if (!of) return
    const come = ({ target }: FocusEvent) => {
      last.current = { element: target as Element, around: [...of.querySelectorAll<HTMLElement>(REACHED)] }
    }
    // Whoever presses beside it has gone of their own will: what they left is still there.
    const go = ({ target }: FocusEvent) =>
      setTimeout(() => {
        const isLeft = (target as Element).isConnected && !of.contains(document.activeElement)
        if (isLeft) last.current = null
      })
    of.addEventListener('focusin', come)
    of.addEventListener('focusout', go)
    return () => {
      of.removeEventListener('focusin', come)
      of.removeEventListener('focusout', go)
    }
  })
  useLayoutEffect(() => {
    if (!last.current || last.current.element.isConnected || document.activeElement !== document.body) return
    const { element, around } = last.current
    const at = around.findIndex((one) => one === element)
    const isThere = (one: Element) => one.isConnected
    const next = around.slice(at + 1).find(isThere) ?? around.slice(0, Math.max(0, at)).findLast(isThere)
    next?.focus({ preventScroll: true })
  })
  return part
}
