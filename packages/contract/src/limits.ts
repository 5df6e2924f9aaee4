/**
 * More dragged nodes, or more things in order, than this in one frame is a slip or an attack, not a garden.
 */
export const MAX_DRAGGED = 500
export const MAX_AXIS = 20_000
export const MAX_AXES = 12
/** Entries that one request may append. */
export const MAX_ENTRIES = 500
/** Entries that one request may read. */
export const MAX_PAGE = 5000
/** Bytes of a photo as it is sent. */
export const MAX_PHOTO_BYTES = 12 * 1024 * 1024
/** Bytes of one piece of a photo. */
export const MAX_PIECE_BYTES = 512 * 1024
/**
 * Of the files that gardens are exchanged as, and of those of single frames: raised when older ones would be
 * read wrongly; each step gets an upcast.
 */
export const EXCHANGE_VERSION = 4
export const FRAME_FILE_VERSION = 2
/** Bytes of a garden file: many seasons with their photos. */
export const MAX_IMPORT_BYTES = 512 * 1024 * 1024
/**
 * A header that every answer of the API carries. An answer without it is not ours, whatever its status: the
 * sign-in page of a guest network, a proxy's own error. Raised when a page of before could no longer read the
 * answers.
 */
export const API_HEADER = 'klados-api'
export const API_VERSION = '3'
/** A header of whatever a page writes: the account that it was written under, which need not be the one signed in by now. */
export const WRITER_HEADER = 'klados-writer'
/** A header of a save: the version of its body. Absent from pages of before, whose bodies are brought up. */
export const BODY_HEADER = 'klados-body-version'
/** A header of every answer to somebody who is signed in: as whom. */
export const ACCOUNT_HEADER = 'klados-account'
/** What is answered in lines of text, and not as JSON, says so by this type. */
export const LINES_TYPE = 'text/x-klados-lines'
