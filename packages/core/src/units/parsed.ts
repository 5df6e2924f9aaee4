export type ParseFailure = 'empty' | 'not-a-length' | 'ambiguous' | 'not-a-quantity' | 'wrong-unit'
export type Parsed =
  | { readonly ok: true; readonly value: number }
  | {
      readonly ok: false
      readonly reason: ParseFailure
      /** Both numbers that it can be, as they are understood when they are typed; only where it is ambiguous. */
      readonly either?: readonly [string, string]
    }
