import { setTimeout as pause } from 'node:timers/promises'
import { percentile, signUp, startKlados, wall } from './klados.mjs'
import { watch } from './watch.mjs'

const MOST_MS = 500
const MOST_MB = 600

/**
 * Files made to fill the memory or hold the server up, from one account, while others read: do they notice?
 * Times are printed always and held to a goal in a run of its own only: beside other work they say nothing.
 */
export async function soakBombs({ bombMb, isTimed, report }) {
  const klados = await startKlados('bombs')
  try {
    const [attacker, reader] = [await signUp(klados.base), await signUp(klados.base)]
    const server = klados.serverPid()
    for (const [name, send] of bombs(klados.base, attacker, bombMb)) {
      const watched = watch(klados.base, reader, server)
      const outcome = await send().catch((error) => `cut off (${error.cause?.code ?? error.name})`)
      // Others feel the end of it too.
      await pause(300)
      const { times, mostMb, mostBesideMb, failures } = await watched.stop()
      const p95 = percentile(times, 0.95)
      report.say(
        name,
        `${outcome}; others' reads p95 ${p95.toFixed(0)} ms of ${times.length}, server ${mostMb.toFixed(0)} MB, beside it ${mostBesideMb.toFixed(0)} MB`,
        (!isTimed || p95 < MOST_MS) && mostMb < MOST_MB && failures === 0,
      )
    }
    const after = await fetch(`${klados.base}/api/session`, { headers: { cookie: reader.cookie } })
    report.say(
      'the server that stood through all of it',
      klados.serverPid() === server ? 'is the same' : 'is another',
      klados.serverPid() === server && after.ok,
    )
  } finally {
    await klados.stop()
  }
}

function* bombs(base, { gardenId, cookie, placeId }, bombMb) {
  const photo = async (content) =>
    (
      await fetch(`${base}/api/gardens/${gardenId}/files/${crypto.randomUUID()}`, {
        method: 'PUT',
        body: content,
        headers: { cookie, 'content-type': 'image/jpeg' },
      })
    ).status
  const many = async (count, send) => {
    const codes = await Promise.all(Array.from({ length: count }, () => send().catch(() => 'cut off')))
    return [...new Set(codes)]
      .map((code) => `${codes.filter((one) => one === code).length} x ${code}`)
      .join(', ')
  }
  const svg = Buffer.from(
    `<svg xmlns="http://www.w3.org/2000/svg" width="9000" height="9000"><filter id="f"><feTurbulence baseFrequency="0.9" numOctaves="9"/></filter><rect width="9000" height="9000" filter="url(#f)"/></svg>`,
  )
  yield ['6 small SVGs that are slow to draw', () => many(6, () => photo(svg))]
  yield [
    '6 PNGs of 144 million pixels in little',
    async () => {
      const bomb = await png(12_000, 12_000)
      return many(6, () => photo(bomb))
    },
  ]
  yield [
    '6 PNGs of 49 million pixels, which are taken',
    async () => {
      const bomb = await png(7000, 7000)
      return many(6, () => photo(bomb))
    },
  ]
  yield [
    '6 progressive JPEGs of 48 million pixels',
    async () => {
      const { default: sharp } = await import('sharp')
      const bomb = await sharp({
        create: { width: 8000, height: 6000, channels: 3, background: '#777' },
        limitInputPixels: false,
      })
        .jpeg({ progressive: true })
        .toBuffer()
      return many(6, () => photo(bomb))
    },
  ]
  yield [
    '12 photos of 12 MB of noise at once',
    () => many(12, () => photo(Buffer.alloc(12 * 1024 ** 2 - 10, 0xa5))),
  ]
  const importFile = async (parts) => {
    const form = new FormData()
    form.append('gardenId', crypto.randomUUID())
    form.append('file', new Blob(parts), 'garden.json')
    const reply = await fetch(`${base}/api/gardens-from-file`, {
      method: 'POST',
      body: form,
      headers: { cookie },
    })
    const text = await reply.text()
    const last = JSON.parse(text.trim().split('\n').at(-1))
    return last.error?.code ?? Object.keys(last)[0]
  }
  const head =
    '{"format":"klados-garden","version":2,"garden":{"name":"Bomb","latitudeDeg":52,"currency":"EUR"},'
  const filler = (text, mb) => {
    const piece = text.repeat(Math.ceil(1024 ** 2 / text.length))
    return Array.from({ length: mb }, () => piece)
  }
  for (const mb of [2, bombMb]) {
    yield [
      `an import of ${mb} MB of []`,
      () => importFile([head, '"places":[', ...filler('[],', mb), '[]]}']),
    ]
    yield [
      `an import of ${mb} MB in one string`,
      () => importFile([head, '"places":["', ...filler('x', mb), '"]}']),
    ]
    yield [`an import of ${mb} MB of brackets`, () => importFile([head, '"places":', ...filler('[', mb)])]
    yield [`an import of ${mb} MB of blanks`, () => importFile([head, ...filler(' ', mb), '"places":[]}'])]
  }
  yield [
    `an import of ${bombMb} MB of sound entries`,
    () => {
      const place = `"places":[{"id":"${placeId}","isRemoved":false,"version":1,"savedAt":"2026-01-01T00:00:00Z","body":${JSON.stringify(wall)}}],"frames":[],"plants":[],"stores":[],"files":[],"entries":[`
      let n = 0
      const entry = () =>
        `{"id":"0195a000-${(n >> 16).toString(16).padStart(4, '0')}-7${((n >> 4) & 0xfff).toString(16).padStart(3, '0')}-8${(n++ & 0xf).toString(16)}00-000000000000","placeId":"${placeId}","plantId":null,"kind":"note.written","at":"2026-03-01","recordedAt":"2026-03-01T12:00:00.000Z","supersedes":null,"body":{"v":1,"text":"${'n'.repeat(700)}"}}`
      const entries = Array.from({ length: Math.floor((bombMb * 1024 ** 2) / 1000) }, entry)
      return importFile([head, place, entries.join(','), ']}'])
    },
  ]
  const send = async (text) =>
    (
      await fetch(`${base}/api/gardens/${gardenId}/entries`, {
        method: 'POST',
        body: text,
        headers: { cookie, 'content-type': 'application/json' },
      })
    ).status
  yield [
    '20 requests of 1 MB of brackets',
    () => many(20, () => send(`{"entries":${'['.repeat(500_000)}${']'.repeat(500_000)}}`)),
  ]
  yield [
    '20 requests of 500 entries that are none',
    () =>
      many(20, () =>
        send(
          JSON.stringify({
            entries: Array.from({ length: 500 }, () => ({
              kind: 'note.written',
              body: { text: 'x'.repeat(1500) },
            })),
          }),
        ),
      ),
  ]
  yield [`a request of ${bombMb} MB`, () => send('x'.repeat(bombMb * 1024 ** 2)).catch(() => 'cut off')]
}

async function png(width, height) {
  const { default: sharp } = await import('sharp')
  return sharp({ create: { width, height, channels: 3, background: 'black' }, limitInputPixels: false })
    .png({ compressionLevel: 9 })
    .toBuffer()
}
