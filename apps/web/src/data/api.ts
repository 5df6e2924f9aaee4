import type {
  FrameDocument,
  Garden,
  GardenSettings,
  Place,
  Plant,
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
import { Refusal, request } from './request.ts'

export interface ApiError {
  readonly code: string
  readonly message: string
  readonly fields?: readonly { readonly path: string; readonly message: string }[]
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
    if (error instanceof Refusal) {
      const { code, message, fields } = error.reply
      return { error: fields ? { code, message, fields } : { code, message } }
    }
    return { error: { code: 'server/away', message: error instanceof Error ? error.message : String(error) } }
  }
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
  dispatch(nobodyHere())
  if (accountId === null) return
  const { copyStore } = await import('./copy/copy-store.ts')
  await copyStore.dropAccount(accountId).catch(() => undefined)
}

/** Whose session this is. Over by time, and not by signing out, it opens what lies on this device all the same. */
export type SessionHere = Session & { readonly isExpired?: true }
let lastSession: Session | null = null
export const rememberSession = (session: Session): void => void (lastSession = session)

function sessionHere(answer: Session): SessionHere {
  if (answer.account !== null) {
    lastSession = answer
    return answer
  }
  const isCopied = lastSession?.account && localStorage.getItem(COPIED_ACCOUNT_KEY) === lastSession.account.id
  return isCopied ? { ...lastSession!, hasDemo: answer.hasDemo, isExpired: true } : answer
}

/** All server data but the journal, which has a store of its own. */
export const api = createApi({
  reducerPath: 'api',
  baseQuery: send,
  tagTypes: ['Session', 'Garden', 'Place', 'Frame', 'Plant', 'Stores'],
  endpoints: (build) => ({
    session: build.query<SessionHere, undefined>({
      query: () => ({ path: '/session' }),
      transformResponse: sessionHere,
      providesTags: ['Session'],
    }),
    signUp: build.mutation<unknown, SignUp>({
      query: (body) => ({ method: 'POST', path: '/accounts', body }),
      invalidatesTags: ['Session'],
    }),
    signIn: build.mutation<unknown, SignIn>({
      query: (body) => ({ method: 'POST', path: '/session', body }),
      invalidatesTags: ['Session'],
    }),
    signInDemo: build.mutation<unknown, undefined>({
      query: () => ({ method: 'POST', path: '/session/demo' }),
      invalidatesTags: ['Session'],
    }),
    signOut: build.mutation<unknown, undefined>({
      query: () => ({ method: 'DELETE', path: '/session' }),
      invalidatesTags: ['Session', 'Garden', 'Place', 'Frame', 'Plant', 'Stores'],
      onQueryStarted: forgetting,
    }),
    setUnits: build.mutation<unknown, 'metric' | 'imperial'>({
      query: (units) => ({ method: 'PUT', path: '/account/preferences', body: { units } }),
      async onQueryStarted(units, { dispatch, queryFulfilled }) {
        const patch = dispatch(
          api.util.updateQueryData('session', undefined, (session) => {
            if (session.account) session.account.units = units
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
    addMember: build.mutation<unknown, { gardenId: string; email: string; role: Role }>({
      query: ({ gardenId, ...body }) => ({ method: 'POST', path: `/gardens/${gardenId}/members`, body }),
      invalidatesTags: ['Garden'],
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
  useSignInDemoMutation,
  useSignOutMutation,
  useSetUnitsMutation,
  useGardenQuery,
  useSaveGardenMutation,
  useAddMemberMutation,
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
