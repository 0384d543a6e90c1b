import { refused } from '../problem'
import { createHash } from 'node:crypto'

/** Most octets of a picture that is sent. */
export const MOST_PHOTO_OCTETS = 12 * 1024 * 1024
/** Most pixels a picture may unpack to, whatever its octets: a small file can hold a huge picture. */
const MOST_PIXELS = 60_000_000
const LONGEST_SIDE = 2048
const SMALL_SIDE = 360

const taken = new Set(['image/jpeg', 'image/png', 'image/webp'])

/** A picture as it is kept: JPEG, upright, at most 2048 pixels long, nothing in it of where or with what it was taken. */
export interface PreparedPhoto {
  picture: Buffer
  small: Buffer
  width: number
  height: number
  sha256: string
}

/**
 * Looks at what a file really holds and draws it anew, so that nothing of the file but its pixels is kept.
 * @throws DomainProblem naming `photo` where it is no picture of a kind that is taken, or unpacks to too many pixels
 */
export async function preparePhoto(octets: Buffer): Promise<PreparedPhoto> {
  // Loaded with the first picture: a start, or a command, does not need them.
  const [{ fileTypeFromBuffer }, { default: sharp }] = await Promise.all([import('file-type'), import('sharp')])
  const kind = await fileTypeFromBuffer(octets)
  if (!kind || !taken.has(kind.mime))
    throw notAPhoto(
      kind
        ? `is ${kind.ext.toUpperCase()}, not a photo; send JPEG, PNG or WebP`
        : 'is not a photo that can be read; send JPEG, PNG or WebP'
    )
  const open = () => sharp(octets, { limitInputPixels: MOST_PIXELS, failOn: 'error', animated: false })
  const { width = 0, height = 0 } = await open()
    .metadata()
    .catch((error: unknown) => {
      throw tooManyPixels(error) ?? notAPhoto('is damaged or cut short; take it again')
    })
  if (width * height > MOST_PIXELS) throw manyPixels()
  try {
    const { data, info } = await open()
      .rotate()
      .resize({ width: LONGEST_SIDE, height: LONGEST_SIDE, fit: 'inside', withoutEnlargement: true })
      .flatten({ background: '#ffffff' })
      .jpeg({ quality: 84 })
      .toBuffer({ resolveWithObject: true })
    const small = await sharp(data)
      .resize({ width: SMALL_SIDE, height: SMALL_SIDE, fit: 'inside', withoutEnlargement: true })
      .jpeg({ quality: 76 })
      .toBuffer()
    return {
      picture: data,
      small,
      width: info.width,
      height: info.height,
      sha256: createHash('sha256').update(data).digest('hex')
    }
  } catch (error) {
    throw tooManyPixels(error) ?? notAPhoto('is damaged or cut short; take it again')
  }
}

const notAPhoto = (message: string) => refused([{ path: ['photo'], message }])
const manyPixels = () => notAPhoto('unpacks to more than 60 million pixels; take it at a lower resolution')

function tooManyPixels(error: unknown) {
  return /pixel limit/i.test(String((error as Error | null)?.message)) ? manyPixels() : null
}
