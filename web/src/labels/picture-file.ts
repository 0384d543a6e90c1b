/** Most octets of a picture that is taken. */
export const MOST_OCTETS = 12 * 1024 * 1024
/** How long the longer side of a picture is when it is sent. */
const SENT_SIDE = 2048

/** What a picture that was chosen cannot be used for, in words. */
export class PictureProblem extends Error {}

/**
 * Makes a chosen picture ready to be sent: at most 2048 pixels long, JPEG, and with nothing in it of where or with what
 * it was taken. A kind that only this browser can open (HEIC) is sent as JPEG as well.
 * @throws PictureProblem where it is too large or no picture
 */
export async function readyToSend(file: Blob): Promise<Blob> {
  if (file.size > MOST_OCTETS)
    throw new PictureProblem(
      `is larger than 12 MB (${(file.size / 1024 / 1024).toFixed(1)} MB); take it at a lower resolution`
    )
  if (file.type === 'image/svg+xml') throw new PictureProblem('is a drawing, not a photo; take a JPEG, PNG or WebP')
  let bitmap: ImageBitmap
  try {
    bitmap = await createImageBitmap(file, { imageOrientation: 'from-image' })
  } catch {
    throw new PictureProblem('is not a picture that can be opened here; take a JPEG, PNG or WebP')
  }
  const scale = Math.min(1, SENT_SIDE / Math.max(bitmap.width, bitmap.height))
  const canvas = document.createElement('canvas')
  canvas.width = Math.max(1, Math.round(bitmap.width * scale))
  canvas.height = Math.max(1, Math.round(bitmap.height * scale))
  canvas.getContext('2d')!.drawImage(bitmap, 0, 0, canvas.width, canvas.height)
  bitmap.close()
  const sent = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/jpeg', 0.9))
  if (!sent) throw new PictureProblem('could not be made ready; take it again')
  return sent
}
