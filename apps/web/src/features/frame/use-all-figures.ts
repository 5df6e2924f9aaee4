import { useState } from 'react'

const KEY = 'klados.all-figures'

/** Whether the form asks for everything at once, as whoever knows it wants; kept on this device. */
export function useAllFigures(): readonly [boolean, (isOn: boolean) => void] {
  const [isAll, setIsAll] = useState(() => localStorage.getItem(KEY) === 'yes')
  return [
    isAll,
    (isOn) => {
      localStorage.setItem(KEY, isOn ? 'yes' : 'no')
      setIsAll(isOn)
    },
  ]
}
