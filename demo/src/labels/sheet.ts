import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import pdfmake from 'pdfmake'
import type { Content } from 'pdfmake/interfaces'
import woff from 'woff2sfnt-sfnt2woff'

const require = createRequire(import.meta.url)
const face = (weight: number) =>
  require.resolve(`@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-${weight}-normal.woff`)
const POINTS_PER_DOT = 72 / 25.4 / 16

/** A label as it is put on the sheet. */
export interface SheetLabel {
  caption: string
  png: Buffer
  width: number
  height: number
}

/** A sheet of labels as PDF, each in its real size, to print and cut out for practice. */
export async function labelSheet(title: string, labels: readonly SheetLabel[]): Promise<Buffer> {
  pdfmake.setFonts({ Sans: { normal: face(400), bold: face(700), italics: face(400), bolditalics: face(700) } })
  const policies = pdfmake as unknown as {
    virtualfs: { writeFileSync: (path: string, octets: Buffer) => void }
    setUrlAccessPolicy: (allow: () => boolean) => void
    setLocalAccessPolicy: (allow: (path: string) => boolean) => void
  }
  policies.setUrlAccessPolicy(() => false)
  policies.setLocalAccessPolicy((path) => path.includes('@fontsource'))
  // Unpacked once, as for the server's documents.
  for (const path of [face(400), face(700)]) policies.virtualfs.writeFileSync(path, woff.toSfnt(readFileSync(path)))
  const content: Content[] = labels.map(({ caption, png, width, height }) => ({
    unbreakable: true,
    margin: [0, 0, 0, 14],
    stack: [
      { text: caption, fontSize: 9, color: '#5A5263', margin: [0, 0, 0, 3] },
      {
        table: {
          body: [
            [
              {
                image: `data:image/png;base64,${png.toString('base64')}`,
                width: width * POINTS_PER_DOT,
                height: height * POINTS_PER_DOT
              }
            ]
          ]
        },
        layout: {
          hLineWidth: () => 0.4,
          vLineWidth: () => 0.4,
          paddingLeft: () => 0,
          paddingRight: () => 0,
          paddingTop: () => 0,
          paddingBottom: () => 0
        }
      }
    ]
  }))
  const definition = {
    info: { title, creator: 'Pasado' },
    pageSize: 'A4' as const,
    pageMargins: [40, 40, 40, 40] as [number, number, number, number],
    defaultStyle: { font: 'Sans' },
    content: [
      { text: title, bold: true, fontSize: 14, margin: [0, 0, 0, 10] } as Content,
      {
        columns: [0, 1].map((side) => ({ width: '*', stack: content.filter((_, at) => at % 2 === side) })),
        columnGap: 16
      } as Content
    ]
  }
  return (pdfmake.createPdf(definition) as unknown as { getBuffer: () => Promise<Buffer> }).getBuffer()
}
