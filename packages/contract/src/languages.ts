/** Languages with their regions, which write dates and numbers each in their own way. */
export const languages = ['en-GB', 'en-US'] as const
export type Language = (typeof languages)[number]
