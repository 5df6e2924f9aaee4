const KEY = 'klados.letter-keys'

/**
 * Whether single letters and figures act by themselves on the plant bench: somebody who dictates, or whose hand shakes,
 * turns them off. Kept on this device.
 */
export const areLetterKeysOn = (): boolean => localStorage.getItem(KEY) !== 'off'
export const setLetterKeys = (areOn: boolean): void => localStorage.setItem(KEY, areOn ? 'on' : 'off')
