import type { LabelField } from './fields'

/** Where a reading comes from: a code of the label, its print, or text that a person pasted. */
export type ReadingSource = 'qr' | 'bars' | 'print' | 'pasted'

/** A rectangle on the picture that something was read from, in its pixels. */
export interface Piece {
  x: number
  y: number
  width: number
  height: number
}

/** One thing read off a label: the content of a code, or a line of text. */
export interface Reading {
  source: ReadingSource
  text: string
  /** How sure the reader of text is, from 0 to 1; codes prove themselves. */
  sureness: number
  piece?: Piece
}

/** How far a proposed value can be trusted. `certain`: a key of a code, or a caption in pasted text, that names just this field and that nothing contradicts. */
export type Trust = 'certain' | 'likely' | 'unsure'

/** What is known of the models that a label may be of. */
export interface KnownModel {
  id: string
  maker: string
  name: string
  masks?:
    | {
        serial?: string | undefined
        mac?: string | undefined
        key?: string | undefined
        setupCode?: string | undefined
        password?: string | undefined
      }
    | undefined
  ssidPrefix?: string | null
}

/** A value taken for a field, before it is weighed against others. */
export interface Taken {
  field: LabelField
  raw: string
  reading: Reading
  /** True where a caption or a key of the code names the field. */
  named: boolean
  /** True where what names it can name nothing else: only then can it be certain. */
  just: boolean
}
