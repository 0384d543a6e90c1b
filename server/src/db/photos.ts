import { rows, row, run, type Connection } from './pool'

/** A photo as it stands in the database; that of a label is sealed. */
export interface StoredPhoto {
  label: boolean
  picture: Buffer
  small: Buffer | null
}

/** Puts a photo away. */
export async function insertPhoto(db: Connection, photo: StoredPhoto & { ref: string; visit: string }): Promise<void> {
  await run(
    db,
    `
      INSERT INTO photos (ref, visit_id, label, picture, small)
      VALUES (?, ?, ?, ?, ?)
    `,
    [photo.ref, photo.visit, photo.label ? 1 : 0, photo.picture, photo.small]
  )
}

/** One photo of a visit; null where it has none of this reference. */
export async function readPhoto(db: Connection, visit: string, ref: string): Promise<StoredPhoto | null> {
  const found = await row<{ label: number; picture: Buffer; small: Buffer | null }>(
    db,
    'SELECT label, picture, small FROM photos WHERE ref = ? AND visit_id = ?',
    [ref, visit]
  )
  return found ? { ...found, label: found.label === 1 } : null
}

/** Takes the pictures of a visit's labels away, when its secrets are erased. */
export async function eraseLabelPhotos(db: Connection, visit: string): Promise<void> {
  await run(
    db,
    `
      UPDATE photos
      SET picture = '', small = NULL
      WHERE visit_id = ?
        AND label = TRUE
    `,
    [visit]
  )
}

/** The sealed pictures of labels of a visit. */
export const labelPictures = (db: Connection, visit: string): Promise<{ ref: string; picture: Buffer }[]> =>
  rows<{ ref: string; picture: Buffer }>(db, 'SELECT ref, picture FROM photos WHERE visit_id = ? AND label', [visit])

/** Puts another sealed picture in place of a photo's. */
export async function replacePicture(db: Connection, visit: string, ref: string, picture: Buffer): Promise<void> {
  await run(db, 'UPDATE photos SET picture = ? WHERE ref = ? AND visit_id = ?', [picture, ref, visit])
}
