import { useLayoutEffect, useState } from 'react'
import type { RefObject } from 'react'

/** Width and height of an element in pixels, followed as it changes. */
export function useSize(of: RefObject<Element | null>): { width: number; height: number } {
  const [size, setSize] = useState({ width: 800, height: 400 })
  useLayoutEffect(() => {
    const element = of.current
    if (!element) return
    const measure = () => {
      const { width, height } = element.getBoundingClientRect()
      if (width > 0 && height > 0)
        setSize((old) => (old.width === width && old.height === height ? old : { width, height }))
    }
    measure()
    const observer = new ResizeObserver(measure)
    observer.observe(element)
    return () => observer.disconnect()
  }, [of])
  return size
}
