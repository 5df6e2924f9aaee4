/** What a file of pictures is by its first bytes, whatever its name or media type says. */
export type PictureKind =
  | 'jpeg'
  | 'png'
  | 'webp'
  | 'heic'
  | 'avif'
  | 'gif'
  | 'tiff'
  | 'bmp'
  | 'pdf'
  | 'svg'
  | 'unknown'

const ascii = (bytes: Uint8Array, from: number, to: number) =>
  String.fromCharCode(...bytes.subarray(from, to))
const starts = (bytes: Uint8Array, ...head: number[]) => head.every((byte, i) => bytes[i] === byte)

/**
 * Of every taken format the signature that its standard gives (JFIF, PNG, RIFF), and of some others for the
 * sake of words.
 */
export function pictureKind(bytes: Uint8Array): PictureKind {
  if (starts(bytes, 0xff, 0xd8, 0xff)) return 'jpeg'
  if (starts(bytes, 0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a)) return 'png'
  if (ascii(bytes, 0, 4) === 'RIFF' && ascii(bytes, 8, 12) === 'WEBP') return 'webp'
  if (ascii(bytes, 4, 8) === 'ftyp') {
    const brands = ascii(bytes, 8, 40)
    if (brands.startsWith('avi')) return 'avif'
    if (/hei[cxms]|hev[cxms]|mif1|msf1/.test(brands)) return 'heic'
  }
  if (ascii(bytes, 0, 4) === 'GIF8') return 'gif'
  if (starts(bytes, 0x49, 0x49, 0x2a, 0) || starts(bytes, 0x4d, 0x4d, 0, 0x2a)) return 'tiff'
  if (starts(bytes, 0x42, 0x4d)) return 'bmp'
  if (ascii(bytes, 0, 5) === '%PDF-') return 'pdf'
  if (/^\s*(<\?xml[^>]*>\s*)?(<!--.*?-->\s*)?(<!DOCTYPE svg|<svg)/is.test(ascii(bytes, 0, 400))) return 'svg'
  return 'unknown'
}

/** The kinds that are stored; all others are refused by name. */
export const takenPictures: readonly PictureKind[] = ['jpeg', 'png', 'webp']

/**
 * The name that a kind of picture which is not taken is known by; null where the bytes are no picture we
 * know.
 */
export function pictureName(bytes: Uint8Array): string | null {
  const kind = pictureKind(bytes)
  return kind === 'unknown' || takenPictures.includes(kind) ? null : kind.toUpperCase()
}

/**
 * No photo is stored longer on a side: enough to tell a brick from its neighbour on a wall of ten metres. No
 * device need send more.
 */
export const LONGEST_SIDE_PX = 1800
