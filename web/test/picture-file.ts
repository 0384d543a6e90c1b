/** Stands in for the reading of pictures, which only a browser can do: a picture is ready as it is. */
export const MOST_OCTETS = 12 * 1024 * 1024
export class PictureProblem extends Error {}
export const readyToSend = (file: Blob) =>
  file.type.startsWith('image/') ? Promise.resolve(file) : Promise.reject(new Error('no'))
