const { KLADOS_THIRD } = process.env

/** The long check leaves nothing out. */
export const isLong = KLADOS_THIRD === undefined

/** Whether a run takes one of many that repeat: each run of the check takes a third of them, another than the last. */
export const isTaken = (at: number): boolean => isLong || at % 3 === Number(KLADOS_THIRD)
