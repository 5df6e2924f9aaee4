import sharp from 'sharp'
import { AppError } from '../errors.ts'

export interface SmallImage {
  readonly content: Buffer
  readonly mediaType: 'image/jpeg'
  readonly widthPx: number
  readonly heightPx: number
}

/** Large enough to tell a brick from its neighbour on a wall of ten metres; small enough for a garden's database. */
const LONGEST_SIDE_PX = 1800
/** A picture that claims more pixels than any phone takes is a bomb. */
const MAX_PIXELS = 120_000_000

/**
 * The photo upright, no larger than it need be, as a JPEG without any of what the camera wrote into it: where it was
 * taken above all. Throws `file/not-an-image` for anything that is no picture.
 */
export async function makeSmall(sent: Buffer): Promise<SmallImage> {
  try {
    const found = await sharp(sent, { limitInputPixels: MAX_PIXELS }).metadata()
    const isClean =
      !found.exif && !found.xmp && !found.iptc && !found.comments && (found.orientation ?? 1) === 1
    // One of ours that comes back in a garden file: another pass would only lose quality.
    if (found.format === 'jpeg' && isClean && Math.max(found.width, found.height) <= LONGEST_SIDE_PX)
      return { content: sent, mediaType: 'image/jpeg', widthPx: found.width, heightPx: found.height }
    const { data, info } = await sharp(sent, { limitInputPixels: MAX_PIXELS, failOn: 'error' })
      .rotate()
      .resize({ width: LONGEST_SIDE_PX, height: LONGEST_SIDE_PX, fit: 'inside', withoutEnlargement: true })
      .jpeg({ quality: 80, mozjpeg: true })
      .toBuffer({ resolveWithObject: true })
    return { content: data, mediaType: 'image/jpeg', widthPx: info.width, heightPx: info.height }
  } catch {
    throw new AppError(
      'file/not-an-image',
      'This is not a picture that can be read; send a JPEG, PNG or WebP',
    )
  }
}
