import { readFileSync } from 'node:fs'
import type pdfmake from 'pdfmake'
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces'
import { faces, inFaces } from './faces'

let made: Promise<typeof pdfmake> | null = null

/** What draws PDFs, loaded when the first is asked for: it and its fonts are a third of a second that a start, or a command, does not need. */
function pdfMaker(): Promise<typeof pdfmake> {
  made ??= loadPdfMaker()
  return made
}

async function loadPdfMaker(): Promise<typeof pdfmake> {
  const [{ default: maker }, { default: woff }] = await Promise.all([import('pdfmake'), import('woff2sfnt-sfnt2woff')])
  maker.setFonts(faces)
  const policies = maker as unknown as {
    virtualfs: { writeFileSync: (path: string, octets: Buffer) => void }
    setUrlAccessPolicy: (allow: () => boolean) => void
    setLocalAccessPolicy: (allow: (path: string) => boolean) => void
  }
  policies.setUrlAccessPolicy(() => false)
  policies.setLocalAccessPolicy((path) => path.includes('@fontsource') || path.includes('dejavu-fonts-ttf'))
  // Unpacked once: from a packed face a table would be unpacked anew for every sign of a text, seconds for a long record.
  for (const path of new Set([faces.Sans, faces.Mono].flatMap((family) => Object.values(family))))
    policies.virtualfs.writeFileSync(path, woff.toSfnt(readFileSync(path)))
  return maker
}

/** The ink of documents; they are read on paper, so all is black and grey. */
export const ink = '#1D1822'
export const soft = '#5A5263'
export const rule = '#8A8093'

/** Renders a document definition, with our fonts and foot line, to the octets of a PDF. */
export async function renderPdf(
  title: string,
  foot: string,
  content: Content[],
  more: Partial<TDocumentDefinitions> = {},
  of = 'of'
): Promise<Buffer> {
  const definition: TDocumentDefinitions = {
    info: { title, creator: 'Pasado' },
    pageSize: 'A4',
    pageMargins: [48, 48, 48, 56],
    defaultStyle: { font: 'Sans', fontSize: 11, color: ink, lineHeight: 1.15 },
    footer: (page, pages) => ({
      margin: [48, 14, 48, 0],
      columns: [
        inFaces({ text: foot, fontSize: 8.5, color: soft }),
        { text: `${page} ${of} ${pages}`, fontSize: 8.5, color: soft, alignment: 'right', width: 60 }
      ]
    }),
    content: inFaces(content),
    ...more
  }
  const maker = await pdfMaker()
  return (maker.createPdf(definition) as unknown as { getBuffer: () => Promise<Buffer> }).getBuffer()
}

/** A lamp as it looks, as SVG; a pattern is told by the words that stand beside it. */
export function lensSvg(colour: string, size = 26): string {
  const [first, second] = colour.split('/')
  const glass = (name: string | undefined) => GLASS[name ?? 'off'] ?? GLASS.off!
  const half = second ? `<path d="M13 5A8 8 0 0 1 13 21Z" fill="${glass(second)}"/>` : ''
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 26 26" width="${size}" height="${size}"><circle cx="13" cy="13" r="12" fill="#2A2630" stroke="#1D1822" stroke-width="1.5"/><circle cx="13" cy="13" r="8" fill="${glass(first)}"/>${half}</svg>`
}

const GLASS: Record<string, string> = {
  off: '#3B3542',
  white: '#F4F2EE',
  blue: '#2B62E0',
  cyan: '#2BB8D6',
  green: '#2AA84A',
  amber: '#F2A900',
  orange: '#EE6A1F',
  red: '#D92B2B',
  purple: '#8A3BD1'
}
