import { useLayoutEffect, useState } from 'react'
import type { RefObject } from 'react'

interface Size {
  readonly width: number
  readonly height: number
  /** False until the element has come to rest at its first size: what is drawn before is drawn in vain. */
  readonly isSettled: boolean
}

/** Width and height of an element in pixels, followed as it changes. Its height may follow from its width. */
export function useSize(of: RefObject<Element | null>): Size {
  const [size, setSize] = useState<Size>({ width: 800, height: 400, isSettled: false })
  useLayoutEffect(() => {
    if (size.isSettled || !of.current) return
    const { width, height } = of.current.getBoundingClientRect()
    // One that is hidden is measured when it is shown.
    if (width === 0 || height === 0) return
    setSize({ width, height, isSettled: width === size.width && height === size.height })
  }, [of, size])
  useLayoutEffect(() => {
    const element = of.current
    if (!element) return
    const observer = new ResizeObserver(() => {
      const { width, height } = element.getBoundingClientRect()
      if (width > 0 && height > 0)
        setSize((old) =>
          old.width === width && old.height === height ? old : { width, height, isSettled: true },
        )
    })
    observer.observe(element)
    return () => observer.disconnect()
  }, [of])
  return size
}
