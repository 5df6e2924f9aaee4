import { LONGEST_SIDE_PX, pictureKind, pictureName } from '@klados/contract/picture'

export type Shrunk =
  | { readonly kind: 'shrunk'; readonly content: Blob; readonly widthPx: number; readonly heightPx: number }
  | { readonly kind: 'unsupported' | 'unreadable'; readonly name: string }

const QUALITY = 0.88
const HEAD_BYTES = 512

/**
 * The photo upright and no larger than it will be stored, made on the device: a phone on a thin line sends a
 * tenth of it, and what the camera wrote into it, where it was taken above all, never leaves the phone. A
 * kind that this browser can show but the server does not take goes through all the same, since what leaves
 * is a JPEG.
 */
export async function shrink(file: Blob): Promise<Shrunk> {
  const head = new Uint8Array(await file.slice(0, HEAD_BYTES).arrayBuffer())
  const kind = pictureKind(head)
  if (kind === 'svg' || kind === 'pdf') return { kind: 'unsupported', name: kind.toUpperCase() }
  const picture = await createImageBitmap(file).catch(() => null)
  if (!picture) {
    const name = pictureName(head)
    return name ? { kind: 'unsupported', name } : { kind: 'unreadable', name: '' }
  }
  const scale = Math.min(1, LONGEST_SIDE_PX / Math.max(picture.width, picture.height))
  const widthPx = Math.max(1, Math.round(picture.width * scale))
  const heightPx = Math.max(1, Math.round(picture.height * scale))
  const canvas = document.createElement('canvas')
  canvas.width = widthPx
  canvas.height = heightPx
  const paper = canvas.getContext('2d')!
  // Where it is clear it shows paper, as it will once it is a JPEG.
  paper.fillStyle = '#ffffff'
  paper.fillRect(0, 0, widthPx, heightPx)
  paper.drawImage(picture, 0, 0, widthPx, heightPx)
  picture.close()
  const content = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/jpeg', QUALITY))
  return content ? { kind: 'shrunk', content, widthPx, heightPx } : { kind: 'unreadable', name: '' }
}
