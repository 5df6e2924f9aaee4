/** Shows a part of the screen by its id, and puts the hands there. */
export function goToPart(id: string, block: ScrollLogicalPosition): void {
  const there = document.getElementById(id)
  there?.scrollIntoView({ block })
  there?.focus({ preventScroll: true })
}
