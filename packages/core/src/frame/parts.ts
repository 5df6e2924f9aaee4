declare const partOf: unique symbol
/** What reads the letters of a text. */
type Reader =
  | ('at' | 'charAt' | 'charCodeAt' | 'codePointAt' | 'endsWith' | 'includes' | 'indexOf' | 'lastIndexOf')
  | ('localeCompare' | 'match' | 'matchAll' | 'padEnd' | 'padStart' | 'replace' | 'replaceAll' | 'search')
  | ('slice' | 'split' | 'startsWith' | 'substring' | 'toLowerCase' | 'toUpperCase' | 'trim')
  | ('trimEnd' | 'trimStart')
/**
 * Ids of a frame's parts. They are names and nothing else: what a part is stands in its own fields, so no
 * code reads a letter of them. Their type has none of a text's methods that do (and the lint rule
 * `no-reading-of-ids` of the long check finds what a type cannot bar). The same part keeps its id through
 * every revision of its frame; the journal, ties and plants name it by that id.
 */
type PartId<Kind extends string> = string & { readonly [partOf]: Kind } & { readonly [Name in Reader]: never }

export type LevelId = PartId<'level'>
export type LineId = PartId<'line'>
export type NodeId = PartId<'node'>
export type MemberId = PartId<'member'>
export type AnchorId = PartId<'anchor'>

/** The one place where a text becomes an id of a part. */
export const levelId = (text: string) => text as LevelId
export const lineId = (text: string) => text as LineId
export const nodeId = (text: string) => text as NodeId
export const memberId = (text: string) => text as MemberId
export const anchorId = (text: string) => text as AnchorId

/**
 * What a wire of a frame is for: it carries the permanent wood and the crop, holds foliage, carries a water
 * pipe, ties an end back to its anchor, or is a cord that a plant winds up.
 */
export const lineRoles = ['carrying', 'foliage', 'water', 'tie-back', 'cord'] as const
export type LineRole = (typeof lineRoles)[number]

/** Which of a design's two wires: the one that carries, or the light one for foliage and water. */
export type WireName = 'main' | 'light'

export function wireFor(role: LineRole): WireName {
  return role === 'foliage' || role === 'water' ? 'light' : 'main'
}

/** Roles that bear plants: the rest bear pipes, pulls or nothing. */
export const bearsLeaf = (role: LineRole): boolean => role === 'carrying' || role === 'foliage'

/** One straight wire, sliding over its supports from end to end. */
export interface Line {
  readonly id: LineId
  readonly role: LineRole
  /** The level that it belongs to, where the design has levels. */
  readonly level: LevelId | null
  /** Which wire of a pair; `null` for one that is alone at its level. */
  readonly side: 'front' | 'back' | null
}

/** What a member does in its frame. */
export const memberRoles = [
  'end-post',
  'line-post',
  'post',
  'brace',
  'cross-arm',
  'beam',
  'rafter',
  'hoop',
  'stake',
  'leg',
  'rung',
  'rib',
  'ring',
  'bar',
  'core',
  'column',
  'twig',
] as const
export type MemberRole = (typeof memberRoles)[number]

const POSTS: ReadonlySet<MemberRole> = new Set(['end-post', 'line-post', 'post'])
/** What is dug in, and not pushed in or stood in a pot. */
export const isPost = (role: MemberRole): boolean => POSTS.has(role)

const UPRIGHTS: ReadonlySet<MemberRole> = new Set(['stake', 'leg', 'hoop', 'core', 'column'])
/** What a plant climbs by itself and the wind bends at the soil. */
export const isUpright = (role: MemberRole): boolean => UPRIGHTS.has(role)
