/** An invitation's link outlives signing in and signing up in this window. */
const KEY = 'klados.invitation'

export interface InvitationLinkParts {
  readonly gardenId: string
  readonly token: string
}

/** Takes the link out of the address, where others could read it, or else what this window remembers of it. */
export function rememberInvitation(): InvitationLinkParts {
  const text = window.location.hash.slice(1) || (sessionStorage.getItem(KEY) ?? '')
  sessionStorage.setItem(KEY, text)
  const [gardenId = '', token = ''] = text.split('.')
  return { gardenId, token }
}

export const forgetInvitation = (): void => sessionStorage.removeItem(KEY)

/** Where one goes from the door: to the invitation that brought one here, or home. */
export const homeFromDoor = (): string => (sessionStorage.getItem(KEY) === null ? '/' : '/join')
