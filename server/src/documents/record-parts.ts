import { formatMoment } from '@pasado/core/values/moment'
import type { Content, TableCell } from 'pdfmake/interfaces'
import { rule, soft } from './pdf'

export type Margins = [number, number, number, number]

/** A part of the record begins. */
export const heading = (text: string): Content => ({
  text,
  fontSize: 14,
  bold: true,
  headlineLevel: 1,
  margin: [0, 12, 0, 5] as Margins
})

/** How far down a page a part may still begin: below, its head would stand alone. */
const LOWEST_BEGINNING = 0.84

/** Whether a part begins on the next page. */
export const beginsAnew = (node: { headlineLevel?: number; startPosition: { verticalRatio: number } }): boolean =>
  node.headlineLevel === 1 && node.startPosition.verticalRatio > LOWEST_BEGINNING

/** Hair lines between rows and no box around them. */
export const lines = {
  hLineWidth: () => 0.5,
  vLineWidth: () => 0,
  hLineColor: () => rule,
  paddingLeft: () => 0,
  paddingRight: () => 6
}

/** Tells a moment as a record does: all of them in one zone. */
export type TellTime = (iso: string) => string

/** @param zone the company's, which the record names once */
export const timeIn =
  (zone: string | undefined): TellTime =>
  (iso) =>
    formatMoment(iso, zone)

/** A list with a head that is said again on each page; where it is empty, that is said. */
export function table(
  head: string[],
  body: TableCell[][],
  widths: (string | number)[],
  none = 'None recorded.'
): Content {
  if (body.length === 0) return { text: none, color: soft, fontSize: 10 }
  return {
    fontSize: 9,
    table: {
      headerRows: 1,
      keepWithHeaderRows: 1,
      dontBreakRows: true,
      widths,
      body: [head.map((text) => ({ text, bold: true, color: soft })), ...body]
    },
    layout: lines
  }
}

/** Names with their values. */
export function factsTable(pairs: (readonly [string, string | undefined])[]): Content {
  return {
    fontSize: 9.5,
    table: {
      widths: [150, '*'],
      body: pairs.map(([name, value]) => [{ text: name, color: soft }, value ?? 'not recorded'])
    },
    layout: lines
  }
}
