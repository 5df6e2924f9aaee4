export {
  addMemberSchema,
  changeMemberSchema,
  createGardenSchema,
  gardenSchema,
  gardenSettingsSchema,
  preferencesSchema,
  roles,
  sessionSchema,
  signInSchema,
  signUpSchema,
} from './account.ts'
export type { Garden, GardenSettings, Role, Session, SignIn, SignUp } from './account.ts'
export { errorReplySchema, errorStatus } from './error.ts'
export type { ErrorCode, ErrorReply } from './error.ts'
export { frameBodySchema, frameDesignSchema, frameSchema, saveFrameSchema } from './frame.ts'
export type { FrameBody, FrameDocument } from './frame.ts'
export { appendReplySchema, appendSchema, entrySchema } from './journal.ts'
export type { AppendReply, JournalPage, StoredEntry } from './journal.ts'
export { MAX_DRAGGED, MAX_ENTRIES, MAX_PAGE, MAX_TIERS } from './limits.ts'
export { calendarDate, idSchema } from './numbers.ts'
export { avoidSpotSchema, placeBodySchema, placeSchema, savePlaceSchema, surfaces } from './place.ts'
export type { Place, PlaceBody } from './place.ts'
export { plantBodySchema, plantSchema, savePlantSchema } from './plant.ts'
export type { Plant, PlantBody } from './plant.ts'
