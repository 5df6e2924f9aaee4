import { LONGEST_SIDE_PX, pictureKind, takenPictures } from '@klados/contract/picture'
import sharp from 'sharp'

export interface SmallImage {
  readonly content: Buffer
  readonly widthPx: number
  readonly heightPx: number
}
export type PressReply =
  | ({ readonly ok: true } & SmallImage)
  | { readonly ok: false; readonly why: 'not-an-image' | 'too-many-pixels' }

/** The best phones take fewer; the device makes its photos smaller before it sends them anyway. */
export const MAX_PIXELS = 50_000_000

// The three formats that are taken and no other: libvips reads dozens, of which some run code or fetch files.
sharp.block({ operation: ['VipsForeignLoad'] })
sharp.unblock({
  operation: ['VipsForeignLoadJpegBuffer', 'VipsForeignLoadPngBuffer', 'VipsForeignLoadWebpBuffer'],
})
sharp.concurrency(1)
sharp.cache(false)

/**
 * The photo upright, no larger than it need be, encoded anew whatever it was: so it holds nothing of what the
 * camera wrote into it, where it was taken above all, and nothing that was put behind it.
 */
export async function makeSmall(sent: Buffer): Promise<PressReply> {
  if (!takenPictures.includes(pictureKind(sent))) return { ok: false, why: 'not-an-image' }
  try {
    const { width, height, pages } = await sharp(sent, { limitInputPixels: false }).metadata()
    if (width * height * (pages ?? 1) > MAX_PIXELS) return { ok: false, why: 'too-many-pixels' }
    const { data, info } = await sharp(sent, {
      limitInputPixels: MAX_PIXELS,
      failOn: 'error',
      sequentialRead: true,
    })
      .rotate()
      .resize({ width: LONGEST_SIDE_PX, height: LONGEST_SIDE_PX, fit: 'inside', withoutEnlargement: true })
      // On paper-white where it was clear: a JPEG has no clear parts and would show them black.
      .flatten({ background: '#ffffff' })
      .jpeg({ quality: 82, mozjpeg: true })
      .toBuffer({ resolveWithObject: true })
    return { ok: true, content: data, widthPx: info.width, heightPx: info.height }
  } catch {
    return { ok: false, why: 'not-an-image' }
  }
}
