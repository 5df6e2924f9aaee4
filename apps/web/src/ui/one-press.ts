import type { MouseEvent } from 'react'

/**
 * Does something at the first press of a double one. Where a line that is done goes and the next one comes under
 * the thumb, the second press of a gloved hand would do that one too, unseen.
 */
export const onePress =
  (act: () => void) =>
  ({ detail }: MouseEvent): void => {
    // By key it is 0, and how often the same place was pressed in quick succession by hand.
    if (detail < 2) act()
  }
