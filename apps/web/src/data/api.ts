import type { UnitSystem } from '@klados/core/units'
import type {
  FrameDocument,
  Garden,
  GardenSettings,
  Invitation,
  InvitationLink,
  OpenSession,
  Place,
  Plant,
  Preferences,
  RecoveryCodes,
  ResetLink,
  Role,
  Session,
  SignIn,
  SignUp,
  StoresDocument,
} from '@klados/contract'
import type { Action, ThunkAction } from '@reduxjs/toolkit'
import { createApi } from '@reduxjs/toolkit/query/react'
import type { BaseQueryFn } from '@reduxjs/toolkit/query/react'
import { COPIED_ACCOUNT_KEY } from './copy/account-key.ts'
import type { readDocuments as ReadDocuments } from './read-documents.ts'
import { Refusal, ask, request, setWriter, shutRequests } from './request.ts'

export interface ApiError {
  readonly code: string
  readonly message: string
  readonly fields?: readonly { readonly path: string; readonly message: string }[]
  readonly gardens?: readonly string[]
}
interface Call {
  readonly method?: string
  readonly path: string
  readonly body?: unknown
  /** A list of documents, of which only what has changed is read. */
  readonly isList?: boolean
}

/**
 * An answer as it lies in the store, where nothing is changed in place. Said of it here, the store need not say it of
 * each of its thousands of parts, which takes it longer than all else that it does.
 */
export const atRest = <T>(answer: T): T => Object.freeze(answer)

const send: BaseQueryFn<Call, unknown, ApiError> = async (call, { getState, queryCacheKey }) => {
  const { method = 'GET', path, body, isList = false } = call
  try {
    const { queries } = (getState() as WithApi).api
    const here = isList
      ? (queries as Record<string, { data?: unknown } | undefined>)[queryCacheKey!]?.data
      : undefined
    const answer = here ? readOn(path, here as never) : request(method, path, body)
    return { data: atRest((await answer) ?? null) }
  } catch (error) {
    return { error: errorOf(error) }
  }
}

function errorOf(error: unknown): ApiError {
  if (error instanceof Refusal) {
    const { code, message, fields, gardens } = error.reply
    return { code, message, ...(fields ? { fields } : {}), ...(gardens ? { gardens } : {}) }
  }
  return { code: 'server/away', message: error instanceof Error ? error.message : String(error) }
}

/** What compares with what is here comes with the first list that is here. */
async function readOn(...args: Parameters<typeof ReadDocuments>) {
  const { readDocuments } = await import('./read-documents.ts')
  return readDocuments(...args)
}

interface Ending {
  readonly dispatch: (action: ReturnType<typeof nobodyHere>) => unknown
  readonly queryFulfilled: Promise<unknown>
}

/**
 * Whoever signs out leaves nothing of their gardens on this device, and is nobody here from that moment: neither the
 * copy nor a screen goes by who they were until the server has been asked again.
 */
async function forgetting(_: unknown, { dispatch, queryFulfilled }: Ending): Promise<void> {
  const accountId = localStorage.getItem(COPIED_ACCOUNT_KEY)
  await queryFulfilled
  localStorage.removeItem(COPIED_ACCOUNT_KEY)
  lastSession = null
  shutRequests(false)
  dispatch(nobodyHere())
  if (accountId !== null) await forgetCopy(accountId)
}

async function forgetCopy(accountId: string): Promise<void> {
  if (localStorage.getItem(COPIED_ACCOUNT_KEY) === accountId) localStorage.removeItem(COPIED_ACCOUNT_KEY)
  const { copyStore } = await import('./copy/copy-store.ts')
  await copyStore.dropAccount(accountId).catch(() => undefined)
}

/** Somebody signs in at this window: who was at it before is not held to it any more, and owes no signing out. */
async function entering(_: unknown, { queryFulfilled }: Pick<Ending, 'queryFulfilled'>): Promise<void> {
  await queryFulfilled
  localStorage.removeItem(OWED_KEY)
  lastSession = null
  shutRequests(false)
}

/**
 * Whose session this is. Over by time, and not by signing out, it opens what lies on this device all the same. `other` is
 * who has signed in since in another window of this browser: this one stays with whoever has been at it.
 */
export type SessionHere = Session & { readonly isExpired?: true; readonly other?: string }
let lastSession: Session | null = null
/** False while this window goes by what lies on the device, and the server has not said who is signed in. */
let isConfirmed = false
export function rememberSession(session: Session): void {
  lastSession = session
  isConfirmed = false
}
const whoIsHere = (): string | null => lastSession?.account?.id ?? null
setWriter(whoIsHere)

function sessionHere(answer: Session): SessionHere {
  const here = lastSession
  if (answer.account === null) {
    shutRequests(false)
    // A visitor's garden has gone with the session.
    if (here?.account?.isDemo) void forgetCopy(here.account.id)
    const isCopied =
      here?.account && !here.account.isDemo && localStorage.getItem(COPIED_ACCOUNT_KEY) === here.account.id
    if (!isCopied) lastSession = null
    return isCopied ? { ...here, hasDemo: answer.hasDemo, isExpired: true } : answer
  }
  // A window that has only just been opened is whoever's the session is.
  const isOther = isConfirmed && Boolean(here?.account && here.account.id !== answer.account.id)
  shutRequests(isOther)
  if (here && isOther) return { ...here, other: answer.account.name }
  lastSession = answer
  isConfirmed = true
  return answer
}

/** Set while the server has yet to hear that somebody has signed out here. */
const OWED_KEY = 'klados.sign-out-owed'

/** The end of the session, owed from when the server could not be reached, is told before anything is asked of it. */
async function askWho(): Promise<Session> {
  const owed = localStorage.getItem(OWED_KEY)
  if (owed !== null && !(await endSession(owed))) return NOBODY
  return request<Session>('GET', '/session')
}
const NOBODY: Session = { account: null, memberships: [], hasDemo: false }

/** False where the server has not heard of it. A session that is over, or somebody else's by now, is no concern of it. */
async function endSession(accountId: string): Promise<boolean> {
  const reply = await ask('DELETE', '/session', undefined, { writer: accountId })
  const isHeard = reply.kind === 'ours' && reply.status < 500
  if (isHeard) localStorage.removeItem(OWED_KEY)
  else localStorage.setItem(OWED_KEY, accountId)
  return isHeard
}

/** Whether the server has yet to hear that somebody signed out here. */
export const isSignOutOwed = (): boolean => localStorage.getItem(OWED_KEY) !== null

/** Signing out is done on this device whether the server hears of it or not. */
async function signOutHere(): Promise<null> {
  const accountId = whoIsHere()
  if (accountId !== null) await endSession(accountId)
  return null
}

const told = async <T>(answer: Promise<T>): Promise<{ data: T } | { error: ApiError }> => {
  try {
    return { data: atRest(await answer) }
  } catch (error) {
    return { error: errorOf(error) }
  }
}

/** All server data but the journal, which has a store of its own. */
export const api = createApi({
  reducerPath: 'api',
  baseQuery: send,
  tagTypes: ['Session', 'OpenSession', 'Garden', 'Place', 'Frame', 'Plant', 'Stores'],
  endpoints: (build) => ({
    session: build.query<SessionHere, undefined>({
      queryFn: () => told<SessionHere>(askWho().then(sessionHere)),
      providesTags: ['Session'],
    }),
    signUp: build.mutation<unknown, SignUp>({
      query: (body) => ({ method: 'POST', path: '/accounts', body }),
      invalidatesTags: ['Session'],
      onQueryStarted: entering,
    }),
    signIn: build.mutation<unknown, SignIn>({
      query: (body) => ({ method: 'POST', path: '/session', body }),
      invalidatesTags: ['Session'],
      onQueryStarted: entering,
    }),
    signInDemo: build.mutation<unknown, { units: UnitSystem }>({
      query: (body) => ({ method: 'POST', path: '/session/demo', body }),
      invalidatesTags: ['Session'],
      onQueryStarted: entering,
    }),
    /** A copy of the demo beside one's own gardens: the one that one has, or another. */
    openDemo: build.mutation<{ id: string }, undefined>({
      query: () => ({ method: 'POST', path: '/demo' }),
      invalidatesTags: ['Session'],
    }),
    keepDemo: build.mutation<unknown, { gardenId: string; name: string }>({
      query: ({ gardenId, ...body }) => ({ method: 'POST', path: `/gardens/${gardenId}/keep`, body }),
      invalidatesTags: ['Session', 'Garden'],
    }),
    signOut: build.mutation<unknown, undefined>({
      queryFn: () => told(signOutHere()),
      invalidatesTags: ['Session', 'Garden', 'Place', 'Frame', 'Plant', 'Stores'],
      onQueryStarted: forgetting,
    }),
    prefer: build.mutation<unknown, Preferences>({
      query: (body) => ({ method: 'PUT', path: '/account/preferences', body }),
      async onQueryStarted(preferred, { dispatch, queryFulfilled }) {
        const patch = dispatch(
          api.util.updateQueryData('session', undefined, (session) => {
            if (session.account) Object.assign(session.account, preferred)
          }),
        )
        await queryFulfilled.catch(() => patch.undo())
      },
    }),
    garden: build.query<Garden, string>({
      query: (gardenId) => ({ path: `/gardens/${gardenId}` }),
      providesTags: ['Garden'],
    }),
    saveGarden: build.mutation<unknown, { gardenId: string; settings: GardenSettings }>({
      query: ({ gardenId, settings }) => ({ method: 'PUT', path: `/gardens/${gardenId}`, body: settings }),
      invalidatesTags: ['Garden', 'Session'],
    }),
    addMember: build.mutation<InvitationLink, { gardenId: string; email: string; role: Role }>({
      query: ({ gardenId, ...body }) => ({ method: 'POST', path: `/gardens/${gardenId}/members`, body }),
      invalidatesTags: ['Garden'],
    }),
    takeInvitationBack: build.mutation<unknown, { gardenId: string; email: string }>({
      query: ({ gardenId, email }) => ({
        method: 'DELETE',
        path: `/gardens/${gardenId}/invitations/${encodeURIComponent(email)}`,
      }),
      invalidatesTags: ['Garden'],
    }),
    invitations: build.query<Invitation[], undefined>({
      query: () => ({ path: '/invitations' }),
      providesTags: ['Session'],
    }),
    lookAtInvitation: build.query<Invitation, { gardenId: string; token: string }>({
      query: (body) => ({ method: 'POST', path: '/invitations/look', body }),
    }),
    acceptInvitation: build.mutation<unknown, { gardenId: string; token?: string }>({
      query: (body) => ({ method: 'POST', path: '/invitations/accept', body }),
      invalidatesTags: ['Session'],
    }),
    declineInvitation: build.mutation<unknown, { gardenId: string }>({
      query: (body) => ({ method: 'POST', path: '/invitations/decline', body }),
      invalidatesTags: ['Session'],
    }),
    openSessions: build.query<OpenSession[], undefined>({
      query: () => ({ path: '/account/sessions' }),
      providesTags: ['OpenSession'],
    }),
    endSession: build.mutation<unknown, string>({
      query: (id) => ({ method: 'DELETE', path: `/account/sessions/${id}` }),
      invalidatesTags: ['OpenSession'],
    }),
    makeRecoveryCodes: build.mutation<RecoveryCodes, { password: string }>({
      query: (body) => ({ method: 'POST', path: '/account/recovery-codes', body }),
      invalidatesTags: ['Session'],
    }),
    recover: build.mutation<unknown, { email: string; code: string; next: string }>({
      query: (body) => ({ method: 'POST', path: '/account/recover', body }),
      onQueryStarted: forgetting,
    }),
    dropNotice: build.mutation<unknown, string>({
      query: (id) => ({ method: 'DELETE', path: `/account/notices/${id}` }),
      invalidatesTags: ['Session'],
    }),
    setMember: build.mutation<unknown, { gardenId: string; accountId: string; role: Role | null }>({
      query: ({ gardenId, accountId, role }) => ({
        method: role === null ? 'DELETE' : 'PUT',
        path: `/gardens/${gardenId}/members/${accountId}`,
        ...(role === null ? {} : { body: { role } }),
      }),
      invalidatesTags: ['Garden'],
    }),
    places: build.query<Place[], string>({
      query: (gardenId) => ({ path: `/gardens/${gardenId}/places`, isList: true }),
      providesTags: ['Place'],
    }),
    frames: build.query<FrameDocument[], string>({
      query: (gardenId) => ({ path: `/gardens/${gardenId}/frames`, isList: true }),
      providesTags: ['Frame'],
    }),
    plants: build.query<Plant[], string>({
      query: (gardenId) => ({ path: `/gardens/${gardenId}/plants`, isList: true }),
      providesTags: ['Plant'],
    }),
    stores: build.query<StoresDocument[], string>({
      query: (gardenId) => ({ path: `/gardens/${gardenId}/stores`, isList: true }),
      providesTags: ['Stores'],
    }),
    createGarden: build.mutation<{ id: string }, string>({
      query: (name) => ({ method: 'POST', path: '/gardens', body: { name } }),
      invalidatesTags: ['Session'],
    }),
    leaveGarden: build.mutation<unknown, string>({
      query: (gardenId) => ({ method: 'DELETE', path: `/gardens/${gardenId}/membership` }),
      invalidatesTags: ['Session'],
    }),
    deleteGarden: build.mutation<unknown, { gardenId: string; name: string }>({
      query: ({ gardenId, name }) => ({ method: 'DELETE', path: `/gardens/${gardenId}`, body: { name } }),
      invalidatesTags: ['Session'],
    }),
    makeResetLink: build.mutation<ResetLink, { gardenId: string; accountId: string }>({
      query: ({ gardenId, accountId }) => ({
        method: 'POST',
        path: `/gardens/${gardenId}/members/${accountId}/reset-link`,
      }),
    }),
    deletePhoto: build.mutation<unknown, { gardenId: string; fileId: string }>({
      query: ({ gardenId, fileId }) => ({ method: 'DELETE', path: `/gardens/${gardenId}/files/${fileId}` }),
    }),
    changePassword: build.mutation<unknown, { current: string; next: string }>({
      query: (body) => ({ method: 'PUT', path: '/account/password', body }),
    }),
    newPassword: build.mutation<unknown, { token: string; next: string }>({
      query: (body) => ({ method: 'POST', path: '/account/new-password', body }),
      // It ends every session of that account.
      onQueryStarted: forgetting,
    }),
    deleteAccount: build.mutation<unknown, { password: string }>({
      query: (body) => ({ method: 'DELETE', path: '/account', body }),
      invalidatesTags: ['Session', 'Garden', 'Place', 'Frame', 'Plant', 'Stores'],
      onQueryStarted: forgetting,
    }),
    signOutEverywhere: build.mutation<unknown, undefined>({
      query: () => ({ method: 'DELETE', path: '/sessions' }),
      invalidatesTags: ['Session', 'Garden', 'Place', 'Frame', 'Plant', 'Stores'],
      onQueryStarted: forgetting,
    }),
    frameRevisions: build.query<FrameDocument[], { gardenId: string; frameId: string }>({
      query: ({ gardenId, frameId }) => ({ path: `/gardens/${gardenId}/frames/${frameId}/revisions` }),
      providesTags: ['Frame'],
    }),
  }),
})

/** Nobody's session, until the server is asked again. */
function nobodyHere(): ThunkAction<unknown, WithApi, unknown, Action> {
  return api.util.updateQueryData('session', undefined, (session) => {
    session.account = null
    session.memberships = []
  }) as unknown as ThunkAction<unknown, WithApi, unknown, Action>
}

/** The part of the store in which server data lies. */
export interface WithApi {
  readonly api: ReturnType<typeof api.reducer>
}
export const {
  useSessionQuery,
  useSignUpMutation,
  useSignInMutation,
  useKeepDemoMutation,
  useOpenDemoMutation,
  useSignInDemoMutation,
  useSignOutMutation,
  usePreferMutation,
  useGardenQuery,
  useSaveGardenMutation,
  useAddMemberMutation,
  useTakeInvitationBackMutation,
  useInvitationsQuery,
  useLookAtInvitationQuery,
  useAcceptInvitationMutation,
  useDeclineInvitationMutation,
  useOpenSessionsQuery,
  useEndSessionMutation,
  useMakeRecoveryCodesMutation,
  useRecoverMutation,
  useDropNoticeMutation,
  useSetMemberMutation,
  usePlacesQuery,
  useFramesQuery,
  usePlantsQuery,
  useStoresQuery,
  useCreateGardenMutation,
  useLeaveGardenMutation,
  useDeleteGardenMutation,
  useMakeResetLinkMutation,
  useDeletePhotoMutation,
  useChangePasswordMutation,
  useNewPasswordMutation,
  useDeleteAccountMutation,
  useSignOutEverywhereMutation,
  useFrameRevisionsQuery,
} = api
