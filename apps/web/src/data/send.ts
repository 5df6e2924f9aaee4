/** What came back, read to its end. */
export interface Answer {
  readonly status: number
  readonly headers: Headers
  readonly text: string
}

/** A line on which nothing more comes for so long gives no answer. */
const QUIET_MS = 60_000
/** Of what is sent nobody tells how far it is: the slowest line that people work over has the time that it takes. */
const SLOWEST_BYTES_PER_S = 400

const sizeOf = (body: BodyInit | null | undefined): number =>
  typeof body === 'string' ? body.length : body instanceof Blob ? body.size : 0

/** Reads an answer to its end, however long that takes while something comes. */
export async function readWhole(response: Response, onProgress: () => void): Promise<string> {
  if (!response.body) return ''
  const reader = response.body.getReader()
  const decoder = new TextDecoder()
  let text = ''
  for (;;) {
    const { done, value } = await reader.read()
    if (done) return text + decoder.decode()
    onProgress()
    text += decoder.decode(value, { stream: true })
  }
}

/** One request; throws where no answer comes, or ends half-way. The time it may take counts from the last that came. */
export async function send(
  url: string,
  init: RequestInit,
  early: Promise<Response> | null = null,
): Promise<Answer> {
  const end = new AbortController()
  let timer: ReturnType<typeof setTimeout>
  const wait = (ms: number) => {
    clearTimeout(timer)
    timer = setTimeout(() => end.abort(), ms)
  }
  wait(QUIET_MS + (sizeOf(init.body) / SLOWEST_BYTES_PER_S) * 1000)
  try {
    const response = await (early ?? fetch(url, { ...init, signal: end.signal }))
    wait(QUIET_MS)
    const text = await readWhole(response, () => wait(QUIET_MS))
    return { status: response.status, headers: response.headers, text }
  } finally {
    clearTimeout(timer!)
  }
}
