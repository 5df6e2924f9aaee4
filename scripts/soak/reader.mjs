import { setTimeout as pause } from 'node:timers/promises'
import { parentPort, workerData } from 'node:worker_threads'
import { childrenOf, post, residentMb } from './klados.mjs'

/**
 * Somebody who reads and signs in all the while, and looks at the memory of the server and of what it runs
 * beside itself.
 */
const { base, reader, server } = workerData
const times = []
let failures = 0
let isOver = false
let mostMb = 0
let mostBesideMb = 0

async function read() {
  while (!isOver) {
    const start = performance.now()
    const url = `${base}/api/gardens/${reader.gardenId}/places`
    const reply = await fetch(url, { headers: { cookie: reader.cookie } }).catch(() => null)
    if (!reply?.ok) failures++
    else await reply.arrayBuffer()
    times.push(performance.now() - start)
    mostMb = Math.max(mostMb, residentMb(server))
    mostBesideMb = Math.max(
      mostBesideMb,
      childrenOf(server).reduce((sum, pid) => sum + residentMb(pid), 0),
    )
    await pause(20)
  }
}
async function signIn() {
  while (!isOver) {
    const start = performance.now()
    const form = { email: reader.email, password: 'tie it loosely' }
    const reply = await fetch(`${base}/api/session`, post(form)).catch(() => null)
    if (reply?.status !== 204) failures++
    times.push(performance.now() - start)
    await pause(200)
  }
}

const running = [read(), read(), signIn()]
parentPort.once('message', async () => {
  isOver = true
  await Promise.all(running)
  parentPort.postMessage({ times, mostMb, mostBesideMb, failures })
})
