import './no-eval.ts'
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
export {
  EXCHANGE_VERSION,
  MAX_DRAGGED,
  MAX_ENTRIES,
  MAX_FREE_NODES,
  MAX_PAGE,
  MAX_PHOTO_BYTES,
  MAX_TIERS,
} from './limits.ts'
export { calendarDate, idSchema } from './numbers.ts'
export { patternSchema } from './pattern.ts'
export {
  avoidSpotSchema,
  conditionsSchema,
  photoSchema,
  placeBodySchema,
  placeKinds,
  placeSchema,
  savePlaceSchema,
  soilIds,
  surfaces,
} from './place.ts'
export type { Place, PlaceBody, PlacePhoto } from './place.ts'
export { plantBodySchema, plantSchema, savePlantSchema } from './plant.ts'
export type { Plant, PlantBody } from './plant.ts'
export { catalogueSchema, saveStoresSchema, storesBodySchema, storesSchema } from './stores.ts'
export type { OnHand, StoresBody, StoresDocument } from './stores.ts'
export {
  exchangeJsonSchema,
  fileHeaderSchema,
  frameFileSchema,
  gardenFileSchema,
  importReplySchema,
} from './exchange.ts'
export type { FrameFile, GardenFile, ImportReply } from './exchange.ts'
export { fileReplySchema } from './file.ts'
export type { FileReply } from './file.ts'
