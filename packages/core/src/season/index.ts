export { addDays, dateOfDay, dayNumber, daysBetween, isCalendarDate, yearOf } from './calendar.ts'
export type { CalendarDate } from './calendar.ts'
export { seasonsAtDay, seasonsOfGrowth, woodYear } from './growing-season.ts'
export type { Hemisphere } from './growing-season.ts'
