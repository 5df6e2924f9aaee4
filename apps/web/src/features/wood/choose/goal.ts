/** A share either way of the number is near enough. */
const NEAR = 0.1

/** A plain number of buds with what is near enough to it. */
export const around = (aim: number) => ({
  by: 'plain' as const,
  aim,
  min: Math.floor(aim * (1 - NEAR)),
  max: Math.ceil(aim * (1 + NEAR)),
})
