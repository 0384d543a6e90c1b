import type { LabelField } from '@pasado/core/labels/fields'
import { parseLabel, type ParsedLabel } from '@pasado/core/labels/parse'
import type { KnownModel, Reading } from '@pasado/core/labels/reading'
import type { Gray } from '@pasado/core/labels/picture/gray'
import { turnedOver } from '@pasado/core/labels/picture/print'
import type { Homography } from '@pasado/core/labels/picture/homography'
import { printReadings, type TextLine } from './read-picture'

/** Print that waits for the reader of text. */
interface WaitingPrint {
  picture: Gray
  toPhoto: Homography
  bendPx: number
}

/** What sees for `readLabel`: a worker and the reader of text in a browser, the same code called directly elsewhere. */
export interface Eyes {
  /** The codes of the picture, and its print made ready. */
  first: () => Promise<{ codes: Reading[]; print: WaitingPrint }>
  /** The print once more, at another size. */
  second: (codes: readonly Reading[]) => Promise<WaitingPrint>
  text: (picture: Gray) => Promise<TextLine[]>
}

/** What is being done, to tell the person who waits. */
export type ReadingStep = 'codes' | 'print' | 'again'

/**
 * Reads a label: its codes, its print, and where something stayed in doubt its print a second time.
 * @param models that it may be of
 * @param own the unit's model, where it is known, with the fields that its label has
 */
export async function readLabel(
  eyes: Eyes,
  models: readonly KnownModel[],
  own: { model: KnownModel; fields: readonly LabelField[] } | null,
  onStep: (step: ReadingStep) => void = () => undefined
): Promise<ParsedLabel> {
  const parse = (readings: readonly Reading[]) => parseLabel(readings, models, own?.model ?? null)
  const expected = own?.fields ?? []
  onStep('codes')
  const { codes, print } = await eyes.first()
  const fromCodes = parse(codes)
  if (expected.length && missing(fromCodes, expected).length === 0) return fromCodes
  onStep('print')
  const { way, lines } = await upright(eyes, print)
  const readings = [...codes, ...printReadings(lines, way(print))]
  const once = parse(readings)
  if (!inDoubt(once, expected)) return once
  onStep('again')
  const again = way(await eyes.second(codes))
  return parse([...readings, ...printReadings(await eyes.text(again.picture), again)])
}

/** So sure the reader of text is of print that is the right way up, in the mean over its letters. */
const UPRIGHT = 0.66

/** Which way up print is: as it stands, or turned over where it then reads better. */
async function upright(
  eyes: Eyes,
  print: WaitingPrint
): Promise<{ way: (print: WaitingPrint) => WaitingPrint; lines: TextLine[] }> {
  const lines = await eyes.text(print.picture)
  const sure = sureness(lines)
  if (sure >= UPRIGHT) return { way: (same) => same, lines }
  const over = await eyes.text(turnedOver(print).picture)
  return sureness(over) > sure ? { way: turnedOver, lines: over } : { way: (same) => same, lines }
}

/** How sure the reader of text is of its lines, in the mean over their letters; nothing where there are hardly any. */
function sureness(lines: readonly TextLine[]): number {
  const letters = lines.reduce((sum, { text }) => sum + text.length, 0)
  return letters < 20 ? 0 : lines.reduce((sum, line) => sum + line.sureness * line.text.length, 0) / letters
}

function missing({ proposals }: ParsedLabel, expected: readonly LabelField[]): LabelField[] {
  return expected.filter(
    (field) =>
      field !== 'model' && !proposals.some((proposal) => proposal.field === field && proposal.trust === 'certain')
  )
}

function inDoubt({ proposals }: ParsedLabel, expected: readonly LabelField[]): boolean {
  const wanted: readonly LabelField[] = expected.length ? expected : ['serial', 'mac']
  return (
    proposals.some(({ trust }) => trust !== 'certain') ||
    wanted.some((field) => !proposals.some((proposal) => proposal.field === field))
  )
}
