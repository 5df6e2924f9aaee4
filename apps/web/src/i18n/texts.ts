import type en from './en.json'

/** What stands behind the last mark of a name tells apart forms of one text: by number, or by side. */
type WithoutForm<Name extends string> = Name extends `${infer Plain}_${string}` ? Plain : Name

type Names<Texts> = {
  [Name in keyof Texts & string]: Texts[Name] extends string
    ? WithoutForm<Name>
    : `${Name}.${Names<Texts[Name]>}`
}[keyof Texts & string]

/** The name of a text that there is. */
export type TextKey = Names<typeof en>

type Gaps = Readonly<Record<string, unknown>>

/**
 * Says a text, with what fills its gaps. The library's own type works out for each call what its text's gaps are, which
 * took as long as to check all the rest.
 */
export interface TFunction {
  (key: TextKey, gaps?: Gaps): string
  (key: string | readonly string[], gaps: Gaps & { readonly defaultValue: string }): string
}
