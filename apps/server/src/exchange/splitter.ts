import { AppError } from '../errors.ts'

/** What a file's members are to be cut into, and how many bytes each piece may have. */
export interface Cut {
  /** Members whose value is a list that is handed on element by element. */
  readonly lists: Readonly<Record<string, { readonly mostBytes: number }>>
  /** Members handed on whole. */
  readonly wholes: Readonly<Record<string, { readonly mostBytes: number }>>
}
/** A piece of the file as its JSON text; `index` counts the elements of a list, null for a whole member. */
export type OnPiece = (name: string, index: number | null, text: string) => void | Promise<void>

const MAX_DEPTH = 60
const MAX_KEY_BYTES = 80

const QUOTE = 0x22
const BACKSLASH = 0x5c
const COMMA = 0x2c
const COLON = 0x3a
const OPEN_LIST = 0x5b
const CLOSE_LIST = 0x5d
const OPEN_OBJECT = 0x7b
const CLOSE_OBJECT = 0x7d
const isSpace = (byte: number) => byte === 0x20 || byte === 0x0a || byte === 0x0d || byte === 0x09

type Expecting =
  | 'object'
  | 'key'
  | 'key-or-end'
  | 'colon'
  | 'value'
  | 'element'
  | 'element-or-end'
  | 'after-element'
  | 'after-member'
  | 'nothing'

/**
 * Cuts the JSON object of a large file into pieces while its bytes come in, and holds no more than one of
 * them: a parser of the whole, or one whose single strings and elements have no bound, could be made to fill
 * the memory. Within a piece only its end is looked for; whether it is sound JSON is for the reader of the
 * piece to see. Throws `exchange/damaged`.
 */
export class Splitter {
  private expecting: Expecting = 'object'
  private name = ''
  private index = 0
  private readonly seen = new Set<string>()
  /** The piece at hand: parts of chunks, its bytes so far, and where in it we are. */
  private parts: Buffer[] = []
  private bytes = 0
  private depth = 0
  private isInPiece = false
  private isInString = false
  private isEscaped = false
  private isKey = false
  private readonly cut: Cut
  private readonly onPiece: OnPiece

  constructor(cut: Cut, onPiece: OnPiece) {
    this.cut = cut
    this.onPiece = onPiece
  }

  async write(chunk: Buffer): Promise<void> {
    for (let at = 0; at < chunk.length; ) {
      if (!this.isInPiece) {
        const byte = chunk[at]!
        if (isSpace(byte)) at++
        else at += this.step(byte)
        continue
      }
      const end = this.endOfPiece(chunk, at)
      this.parts.push(chunk.subarray(at, end.at))
      this.bytes += end.at - at
      if (this.bytes > this.mostBytes()) throw this.damaged('is larger than such a thing can be')
      at = end.at
      if (end.isWhole) await this.finish()
    }
  }

  end(): void {
    if (this.expecting !== 'nothing') throw this.damaged('ends in the middle')
  }

  private step(byte: number): number {
    switch (this.expecting) {
      case 'object':
        if (byte !== OPEN_OBJECT)
          throw new AppError('exchange/unknown-version', 'This is not a garden file of Klados')
        this.expecting = 'key-or-end'
        return 1
      case 'key':
      case 'key-or-end':
        if (byte === CLOSE_OBJECT && this.expecting === 'key-or-end') {
          this.expecting = 'nothing'
          return 1
        }
        if (byte !== QUOTE) throw this.damaged('is no JSON')
        return this.begin(true)
      case 'colon':
        if (byte !== COLON) throw this.damaged('is no JSON')
        this.expecting = 'value'
        return 1
      case 'value':
        if (Object.hasOwn(this.cut.lists, this.name)) {
          if (byte !== OPEN_LIST) throw this.damaged('should be a list')
          this.expecting = 'element-or-end'
          return 1
        }
        return this.begin(false)
      case 'element':
      case 'element-or-end':
        if (byte === CLOSE_LIST && this.expecting === 'element-or-end') {
          this.expecting = 'after-member'
          return 1
        }
        return this.begin(false)
      case 'after-element':
        if (byte !== COMMA && byte !== CLOSE_LIST) throw this.damaged('is no JSON')
        this.expecting = byte === COMMA ? 'element' : 'after-member'
        return 1
      case 'after-member':
        if (byte !== COMMA && byte !== CLOSE_OBJECT) throw this.damaged('is no JSON')
        this.expecting = byte === COMMA ? 'key' : 'nothing'
        return 1
      case 'nothing':
        throw this.damaged('goes on after its end')
    }
  }

  private begin(isKey: boolean): 0 {
    this.isInPiece = true
    this.isKey = isKey
    this.parts = []
    this.bytes = 0
    this.depth = 0
    this.isInString = false
    this.isEscaped = false
    return 0
  }

  /** Where the piece ends within this chunk, or that it goes on beyond it. */
  private endOfPiece(chunk: Buffer, from: number): { at: number; isWhole: boolean } {
    for (let at = from; at < chunk.length; at++) {
      const byte = chunk[at]!
      if (this.isInString) {
        if (this.isEscaped) this.isEscaped = false
        else if (byte === BACKSLASH) this.isEscaped = true
        else if (byte === QUOTE) {
          this.isInString = false
          if (this.depth === 0) return { at: at + 1, isWhole: true }
        }
      } else if (byte === QUOTE) this.isInString = true
      else if (byte === OPEN_LIST || byte === OPEN_OBJECT) {
        if (++this.depth > MAX_DEPTH) throw this.damaged('is nested too deeply')
      } else if (byte === CLOSE_LIST || byte === CLOSE_OBJECT) {
        // A bare number or word ends where what is around it does.
        if (this.depth === 0) return { at, isWhole: true }
        if (--this.depth === 0) return { at: at + 1, isWhole: true }
      } else if (this.depth === 0 && (byte === COMMA || byte === COLON || isSpace(byte)))
        return { at, isWhole: true }
    }
    return { at: chunk.length, isWhole: false }
  }

  private async finish(): Promise<void> {
    const text = (this.parts.length === 1 ? this.parts[0]! : Buffer.concat(this.parts)).toString('utf8')
    this.isInPiece = false
    this.parts = []
    if (this.isKey) return this.startMember(text)
    if (text === '') throw this.damaged('is no JSON')
    if (Object.hasOwn(this.cut.lists, this.name)) {
      this.expecting = 'after-element'
      await this.onPiece(this.name, this.index++, text)
    } else {
      this.expecting = 'after-member'
      await this.onPiece(this.name, null, text)
    }
  }

  private startMember(text: string): void {
    const name = parseJson(text, 'the file') as string
    if (!Object.hasOwn(this.cut.lists, name) && !Object.hasOwn(this.cut.wholes, name))
      throw new AppError(
        'exchange/damaged',
        `The file has ${JSON.stringify(name.slice(0, 40))}, which is no part of a garden file`,
      )
    if (this.seen.has(name)) throw new AppError('exchange/damaged', `The file has ${name} twice`)
    this.seen.add(name)
    this.isKey = false
    this.name = name
    this.index = 0
    this.expecting = 'colon'
  }

  private mostBytes(): number {
    if (this.isKey) return MAX_KEY_BYTES
    return (this.cut.lists[this.name] ?? this.cut.wholes[this.name])!.mostBytes
  }

  private damaged(what: string): AppError {
    const where =
      this.isKey || this.name === ''
        ? 'The file'
        : pathOf(this.name, Object.hasOwn(this.cut.lists, this.name) ? this.index : null)
    return new AppError('exchange/damaged', `${where} ${what}`)
  }
}

export function pathOf(name: string, index: number | null): string {
  return index === null ? `The file's ${name}` : `The file's ${name}.${index}`
}

export function parseJson(text: string, where: string): unknown {
  try {
    return JSON.parse(text) as unknown
  } catch {
    throw new AppError('exchange/damaged', `${where} is no JSON`)
  }
}
