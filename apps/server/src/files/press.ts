import type { ChildProcess } from 'node:child_process'
import { readFile } from 'node:fs/promises'
import { startProcess } from '../side-entry.ts'
import { AppError } from '../errors.ts'
import { pictureName } from '@klados/contract/picture'
import type { PressReply, SmallImage } from './image.ts'

/** A photo of fifty million pixels takes two seconds here. */
const MAX_MS = 15_000
/** Decoders keep memory; a fresh process begins without. */
const PHOTOS_OF_ONE_PROCESS = 50
/** It may take so much of the machine's memory; looked at so often. */
const MOST_BYTES = 480 * 1024 ** 2
const PAGE_BYTES = 4096
const WEIGH_MS = 50
const IDLE_MS = 60_000

export interface Press {
  /** Makes a photo small in a process of its own, one after another; throws what it is refused for. */
  readonly makeSmall: (sent: Buffer) => Promise<SmallImage>
  readonly close: () => void
}

/**
 * Started at the first photo, ended when it rests; one that takes too long or falls over is killed and
 * another started.
 */
export function createPress({ mostBytes = MOST_BYTES } = {}): Press {
  let child: ChildProcess | null = null
  let made = 0
  let last: Promise<unknown> = Promise.resolve()
  let idle: NodeJS.Timeout | undefined
  const stop = () => {
    child?.kill('SIGKILL')
    child = null
  }
  const start = () => {
    made = 0
    // Of the environment it gets nothing: it needs none, and holds no key to the database if a decoder is
    // broken into.
    const env = { PATH: process.env.PATH, NODE_ENV: process.env.NODE_ENV }
    const started = startProcess('files/press-worker', {
      serialization: 'advanced',
      env,
      stdio: ['ignore', 'ignore', 'ignore', 'ipc'],
    })
    started.on('error', () => undefined)
    return started
  }
  const press = async (sent: Buffer): Promise<PressReply> => {
    clearTimeout(idle)
    if (!child?.connected || made >= PHOTOS_OF_ONE_PROCESS) {
      stop()
      child = start()
    }
    try {
      return await ask(child, ++made, sent, mostBytes)
    } catch (error) {
      stop()
      throw error
    } finally {
      idle = setTimeout(stop, IDLE_MS)
      idle.unref()
    }
  }
  return {
    makeSmall: async (sent) => {
      const turn = last.then(() => press(sent))
      last = turn.catch(() => undefined)
      const reply = await turn
      if (reply.ok) return { ...reply, content: Buffer.from(reply.content) }
      throw refusal(reply.why, sent)
    },
    close: () => {
      clearTimeout(idle)
      stop()
    },
  }
}

function ask(child: ChildProcess, n: number, sent: Buffer, mostBytes: number): Promise<PressReply> {
  return new Promise((resolve, reject) => {
    const end = () => {
      clearTimeout(timer)
      clearInterval(watch)
      child.off('message', hear)
      child.off('exit', gone)
    }
    const hear = (message: { n: number; reply: PressReply }) => {
      if (message.n !== n) return
      end()
      resolve(message.reply)
    }
    const fail = (error: AppError) => {
      end()
      reject(error)
    }
    // Killed from outside, or for what it took: that says nothing of the picture.
    const gone = () =>
      fail(new AppError('server/busy', 'The server could not look at this picture just now; try again'))
    const timer = setTimeout(
      () => fail(new AppError('file/too-slow', 'Reading this picture took too long; send a smaller one')),
      MAX_MS,
    )
    const watch = setInterval(() => void weigh(child, mostBytes), WEIGH_MS)
    child.on('message', hear)
    child.on('exit', gone)
    child.send({ n, sent })
  })
}

/** Ends the process where it has swollen. Where the system does not tell how large it is, its own bounds have to do. */
async function weigh(child: ChildProcess, mostBytes: number): Promise<void> {
  const told = await readFile(`/proc/${child.pid}/statm`, 'utf8').catch(() => null)
  const resident = Number(told?.split(' ')[1]) * PAGE_BYTES
  if (resident > mostBytes) child.kill('SIGKILL')
}

function refusal(why: Exclude<PressReply, { ok: true }>['why'], sent: Buffer): AppError {
  if (why === 'too-many-pixels')
    return new AppError(
      'file/too-many-pixels',
      'This picture has more pixels than are taken; make it smaller first',
    )
  const name = pictureName(sent)
  if (name)
    return new AppError(
      'file/unsupported-kind',
      `This is a picture of the kind ${name}; JPEG, PNG and WebP are taken. A phone that makes HEIC can be set to JPEG`,
    )
  return new AppError('file/not-an-image', 'This is not a picture that can be read; send a JPEG, PNG or WebP')
}
