import './no-eval.ts'
export {
  acceptInvitationSchema,
  addMemberSchema,
  changeMemberSchema,
  changePasswordSchema,
  createGardenSchema,
  declineInvitationSchema,
  deleteAccountSchema,
  deleteGardenSchema,
  demoVisitSchema,
  gardenIdSchema,
  gardenSchema,
  gardenSettingsSchema,
  invitationLinkSchema,
  invitationSchema,
  lookAtInvitationSchema,
  makeRecoveryCodesSchema,
  openSessionSchema,
  preferencesSchema,
  recoverSchema,
  recoveryCodesSchema,
  resetLinkSchema,
  resetPasswordSchema,
  roles,
  sessionSchema,
  signInSchema,
  signUpSchema,
} from './account.ts'
export type {
  Garden,
  GardenSettings,
  Invitation,
  InvitationLink,
  Notice,
  OpenSession,
  Preferences,
  RecoveryCodes,
  ResetLink,
  Role,
  Session,
  SignIn,
  SignUp,
} from './account.ts'
export { languages } from './languages.ts'
export type { Language } from './languages.ts'
export { changedQuery, changedSchema } from './document.ts'
export { errorReplySchema, errorStatus } from './error.ts'
export type { ErrorCode, ErrorReply } from './error.ts'
export { frameBodySchema, frameDesignSchema, frameSchema, frameStages, saveFrameSchema } from './frame.ts'
export type { FrameBody, FrameDocument, FrameStage } from './frame.ts'
export {
  appendReplySchema,
  appendSchema,
  entryAnswerSchema,
  entryKinds,
  entrySchema,
  latestVersion,
} from './journal.ts'
export type { AppendReply, EntryAnswer, JournalPage, StoredEntry } from './journal.ts'
export type { Standing } from './standing.ts'
export {
  ACCOUNT_HEADER,
  API_HEADER,
  API_VERSION,
  BODY_HEADER,
  EXCHANGE_VERSION,
  MAX_AXES,
  MAX_AXIS,
  MAX_DRAGGED,
  MAX_ENTRIES,
  MAX_IMPORT_BYTES,
  MAX_PAGE,
  MAX_PHOTO_BYTES,
  MAX_PIECE_BYTES,
  WRITER_HEADER,
} from './limits.ts'
export { calendarDate, idSchema } from './numbers.ts'
export { patternSchema, patternSchemaOf } from './pattern.ts'
export {
  avoidSpotSchema,
  conditionsSchema,
  photoSchema,
  placeBodySchema,
  placeSchema,
  savePlaceSchema,
  soilIds,
} from './place.ts'
export type { Place, PlaceBody, PlacePhoto } from './place.ts'
export { plantBodySchema, plantSchema, savePlantSchema } from './plant.ts'
export type { Plant, PlantBody } from './plant.ts'
export { catalogueSchema, saveStoresSchema, storesBodySchema, storesSchema } from './stores.ts'
export type { OnHand, StoresBody, StoresDocument } from './stores.ts'
export {
  exchangeJsonSchema,
  exchangedGardenSchema,
  frameFileSchema,
  gardenFileLists,
  gardenFileSchema,
  importAnswersSchema,
  importLineSchema,
} from './exchange.ts'
export type {
  FrameFile,
  GardenFile,
  GardenFileList,
  ImportAnswers,
  ImportCounts,
  ImportLine,
  ImportQuestion,
} from './exchange.ts'
export { fileReplySchema, pieceReplySchema } from './file.ts'
export type { FileReply, PieceReply } from './file.ts'
