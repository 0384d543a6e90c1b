import { createRequire } from 'node:module'
import type { Content } from 'pdfmake/interfaces'
import { forPaper } from '@pasado/core/values/on-paper'

const require = createRequire(import.meta.url)
const ours = (family: string, weight: number, style: string) =>
  require.resolve(`@fontsource/${family}/files/${family}-latin-${weight}-${style}.woff`)
const wide = (name: string) => require.resolve(`dejavu-fonts-ttf/ttf/${name}.ttf`)
const family = (name: string) => ({
  normal: ours(name, 400, 'normal'),
  bold: ours(name, 700, 'normal'),
  italics: ours(name, 400, 'italic'),
  bolditalics: ours(name, 700, 'italic')
})
/** The wide faces stand upright: their slanted ones hold less. */
const upright = (name: string) => ({
  normal: wide(name),
  bold: wide(`${name}-Bold`),
  italics: wide(name),
  bolditalics: wide(`${name}-Bold`)
})

/** The faces of documents: our own, and for names in Greek, Cyrillic and the further letters of Latin one that holds them all. */
export const faces = {
  Sans: family('atkinson-hyperlegible-next'),
  Mono: family('atkinson-hyperlegible-mono'),
  Wide: upright('DejaVuSans'),
  WideMono: upright('DejaVuSansMono')
} as const

/** What every face of our own family holds, as ranges of code points; a test holds it against them. */
export const ownRanges: readonly (readonly [number, number])[] = [
  [0x20, 0x7e],
  [0xa0, 0xac],
  [0xae, 0xb4],
  [0xb6, 0xff],
  [0x131, 0x131],
  [0x152, 0x153],
  [0x2013, 0x2014],
  [0x2018, 0x201a],
  [0x201c, 0x201e],
  [0x2022, 0x2022],
  [0x2026, 0x2026],
  [0x2039, 0x203a],
  [0x20ac, 0x20ac],
  [0x2122, 0x2122],
  [0x2212, 0x2212]
]

const isOurs = (text: string) =>
  [...text].every(
    (sign) =>
      /[\t\r\n]/.test(sign) ||
      ownRanges.some(([first, last]) => sign.codePointAt(0)! >= first && sign.codePointAt(0)! <= last)
  )

type Node = Record<string, unknown>

/** Every text of a document in a face that holds it, and what no face holds as its code point: no mark of a missing sign is ever printed. */
export function inFaces<C extends Content | Content[]>(content: C, font: 'Sans' | 'Mono' = 'Sans'): C {
  return walk(content, font) as C
}

function walk(node: unknown, font: string): unknown {
  if (typeof node === 'string')
    return isOurs(node) ? node : { text: forPaper(node), font: wideOf(font, forPaper(node)) }
  if (Array.isArray(node)) return node.map((part) => walk(part, font))
  if (typeof node !== 'object' || node === null || Buffer.isBuffer(node)) return node
  const here = node as Node
  const own = typeof here.font === 'string' ? here.font : font
  const changed: Node = { ...here }
  for (const part of ['stack', 'columns', 'ul', 'ol'] as const)
    if (here[part] !== undefined) changed[part] = walk(here[part], own)
  if (typeof here.table === 'object' && here.table !== null)
    changed.table = {
      ...here.table,
      body: (here.table as { body: unknown[][] }).body.map((row) => row.map((cell) => walk(cell, own)))
    }
  if (typeof here.text === 'string' && !isOurs(here.text))
    Object.assign(changed, { text: forPaper(here.text), font: wideOf(own, forPaper(here.text)) })
  else if (here.text !== undefined && typeof here.text !== 'string') changed.text = walk(here.text, own)
  if (typeof here.svg === 'string' && !isOurs(here.svg))
    Object.assign(changed, { svg: forPaper(here.svg), font: 'Wide' })
  else if (typeof here.svg === 'string') changed.font = 'Sans'
  return changed
}

/** Once what cannot be printed is told by its code point, our own face may do. */
const wideOf = (font: string, text: string) => {
  if (isOurs(text)) return font
  return font === 'Mono' ? 'WideMono' : 'Wide'
}
