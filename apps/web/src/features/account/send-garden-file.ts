import type { ImportAnswers, ImportLine } from '@klados/contract'
import { API_HEADER } from '@klados/contract/limits'

export type ImportEnd = Exclude<ImportLine, { share: number }>

export interface Sending {
  readonly end: Promise<ImportEnd | { readonly stopped: true }>
  readonly stop: () => void
}

/** Half of the way is the sending, the other half what the server does with it. */
const SENDING_SHARE = 0.5
const away: ImportEnd = { error: { code: 'server/away', message: 'The server does not answer' } }

/**
 * Sends a garden's file and follows what the server says of it, line by line. Stopped, or cut off, it has
 * changed nothing: the server calls it off when the line closes. XMLHttpRequest, since fetch does not tell
 * how much has been sent.
 */
export function sendGardenFile(
  url: string,
  file: File,
  fields: { gardenId?: string; answers?: ImportAnswers },
  onShare: (share: number) => void,
): Sending {
  const form = new FormData()
  if (fields.gardenId) form.append('gardenId', fields.gardenId)
  if (fields.answers) form.append('answers', JSON.stringify(fields.answers))
  form.append('file', file, 'garden.json')
  const sent = new XMLHttpRequest()
  let isStopped = false
  const end = new Promise<ImportEnd | { stopped: true }>((resolve) => {
    sent.upload.onprogress = (event) =>
      event.lengthComputable && onShare((SENDING_SHARE * event.loaded) / event.total)
    sent.onprogress = () => {
      const line = lastLine(sent.responseText)
      if (line && 'share' in line) onShare(SENDING_SHARE + (1 - SENDING_SHARE) * line.share)
    }
    sent.onload = () =>
      resolve(sent.getResponseHeader(API_HEADER) === null ? away : (endOf(sent.responseText) ?? away))
    sent.onerror = () => resolve(away)
    sent.onabort = () => resolve(isStopped ? { stopped: true } : away)
  })
  sent.open('POST', url)
  sent.send(form)
  return {
    end,
    stop: () => {
      isStopped = true
      sent.abort()
    },
  }
}

function lastLine(text: string): ImportLine | null {
  const whole = text.slice(0, text.lastIndexOf('\n'))
  try {
    return JSON.parse(whole.slice(whole.lastIndexOf('\n') + 1)) as ImportLine
  } catch {
    return null
  }
}

/** What it ended with: the last line, or the one refusal that came in place of lines. */
function endOf(text: string): ImportEnd | null {
  const line = lastLine(`${text.trim()}\n`)
  return line && !('share' in line) ? line : null
}
