import { useEffect, useRef } from 'react'

/** Fields take the keys back for what is typed in them. */
const isTyping = (target: EventTarget | null) =>
  target instanceof HTMLElement && target.closest('input, textarea, [contenteditable="true"]') !== null

/**
 * Ctrl+Z, or ⌘Z, takes the last step back wherever undo is offered; with Shift, or Ctrl+Y, it goes on again. `null`
 * where there is nothing to take back.
 */
export function useUndoKeys(undo: (() => void) | null, redo: (() => void) | null = null): void {
  const acts = useRef({ undo, redo })
  useEffect(() => {
    acts.current = { undo, redo }
  })
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || event.altKey || isTyping(event.target)) return
      const key = event.key.toLowerCase()
      const isRedo = key === 'y' || (key === 'z' && event.shiftKey)
      const act = isRedo ? acts.current.redo : key === 'z' ? acts.current.undo : null
      if (!act) return
      event.preventDefault()
      act()
    }
    addEventListener('keydown', press)
    return () => removeEventListener('keydown', press)
  }, [])
}

/** Ctrl+S, or ⌘S, from wherever the hands are; `null` where there is nothing to save. */
export function useSaveKeys(save: (() => void) | null): void {
  const act = useRef(save)
  useEffect(() => {
    act.current = save
  })
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || event.altKey || event.key.toLowerCase() !== 's') return
      // What the browser would save is the page.
      event.preventDefault()
      const field = document.activeElement
      // What is typed counts when the field is left; it has been taken by the next picture.
      if (field instanceof HTMLElement && isTyping(field)) field.blur()
      requestAnimationFrame(() => {
        act.current?.()
        if (field instanceof HTMLElement && document.activeElement === document.body) field.focus()
      })
    }
    addEventListener('keydown', press)
    return () => removeEventListener('keydown', press)
  }, [])
}
