import QRCode from 'qrcode'
import type { Column, Content } from 'pdfmake/interfaces'
import { checkWords, choiceWords, wordsOfPack, type PackContent } from '@pasado/core/documents/pack-content'
import { usedFor, type PackWords } from '@pasado/core/documents/pack-words'
import { withBlanksShown } from '@pasado/core/values/on-paper'
import { ink, lensSvg, renderPdf, rule, soft } from './pdf'

const QR_POINTS = 118

/** The customer's pack: what they need on the fridge, in large type, on paper that may be grey. */
export async function packPdf(pack: PackContent): Promise<Buffer> {
  const words = wordsOfPack(pack.language)
  const { company } = pack
  const content: Content[] = [
    { text: words.title, fontSize: 26, bold: true },
    {
      text: `${pack.customerOnPaper ?? pack.customer} · ${pack.street}`,
      fontSize: 13,
      color: soft,
      margin: [0, 2, 0, 14]
    },
    heading(words.join),
    { text: words.joinHow, margin: [0, 0, 0, 8] },
    ...(await Promise.all(pack.networks.map((network) => networkBlock(network, words)))),
    ...loginsBlock(pack, words),
    heading(words.whereAll),
    ...pack.units.map((unit) => unitBlock(unit, words)),
    ...planBlock(pack, words),
    {
      unbreakable: true,
      stack: [
        heading(words.wrong),
        { ol: words.steps(company.name, company.phone), margin: [0, 0, 0, 10], fontSize: 12.5 }
      ]
    },
    ...(pack.mesh
      ? [
          {
            unbreakable: true,
            stack: [heading(words.settle), { text: words.settleSays(checkWords(pack)), fontSize: 12.5 }]
          }
        ]
      : []),
    {
      unbreakable: true,
      stack: [
        heading(words.chose),
        {
          table: {
            widths: [200, '*'],
            body: choiceWords(pack).map(({ choice, answer }): [Content, Content] => [
              { text: choice },
              { text: answer, bold: true }
            ])
          },
          layout: 'lightHorizontalLines'
        }
      ]
    }
  ]
  if (pack.telephone) {
    content.push({
      margin: [0, 14, 0, 0],
      table: {
        widths: ['*'],
        body: [[{ text: [{ text: words.power, bold: true }, words.powerSays], margin: [8, 6, 8, 6], fontSize: 12.5 }]]
      },
      layout: { hLineColor: () => ink, vLineColor: () => ink }
    })
  }
  return renderPdf(`${words.title}, ${pack.street}`, `${company.name} · ${company.phone}`, content, {}, words.of)
}

const heading = (text: string): Content => ({ text, fontSize: 15, bold: true, margin: [0, 12, 0, 6] })

async function networkBlock(
  { guests, use, ssid: name, transcription, open, passphrase, qr }: PackContent['networks'][number],
  words: PackWords
): Promise<Content> {
  const ssid = withBlanksShown(transcription ?? name)
  const shown = withBlanksShown(open ? words.open : (passphrase ?? words.notKept))
  const left: Content[] = [
    { text: usedFor(words, { use, guests }), bold: true, fontSize: 12.5, margin: [0, 2, 0, 6] },
    { text: words.name, color: soft, fontSize: 10 },
    {
      text: ssid,
      font: 'Mono',
      fontSize: Math.min(17, sizeOnOneLine(ssid) + 2),
      bold: true,
      noWrap: true,
      margin: [0, 0, 0, transcription === undefined ? 6 : 0]
    },
    ...(transcription === undefined
      ? []
      : [{ text: words.saidSo, color: soft, fontSize: 9, margin: [0, 0, 0, 6] } as Content]),
    { text: words.passphrase, color: soft, fontSize: 10 },
    { text: shown, font: 'Mono', fontSize: sizeOnOneLine(passphrase ?? ''), bold: true, noWrap: true },
    ...(`${ssid}${shown}`.includes('␣') ? [{ text: words.blank, color: soft, fontSize: 9 } as Content] : [])
  ]
  const right: Content = qr
    ? { svg: await QRCode.toString(qr, { type: 'svg', margin: 1, errorCorrectionLevel: 'M' }), width: QR_POINTS }
    : { text: '' }
  return {
    unbreakable: true,
    margin: [0, 0, 0, 8],
    table: {
      widths: ['*', QR_POINTS + 8],
      body: [
        [
          { stack: left, margin: [8, 6, 0, 6] },
          { stack: [right], margin: [0, 4, 4, 4] }
        ]
      ]
    },
    layout: {
      hLineColor: () => rule,
      vLineColor: (index: number) => (index === 1 ? 'white' : rule),
      vLineWidth: (index: number) => (index === 1 ? 0 : 1)
    }
  }
}

/** The logins of the units' own pages, each once with its units. */
function loginsBlock({ logins = [] }: PackContent, words: PackWords): Content[] {
  if (logins.length === 0) return []
  return [
    {
      unbreakable: true,
      stack: [
        heading(words.logins),
        { text: words.loginsHow, margin: [0, 0, 0, 6] },
        ...logins.map(({ units, pages, name, password }): Content => ({
          margin: [0, 0, 0, 6],
          stack: [
            {
              text: [
                { text: units.join(', '), bold: true },
                ...(pages.length ? [{ text: `  ${pages.join(', ')}`, font: 'Mono', fontSize: 10, color: soft }] : [])
              ]
            },
            {
              text: [
                ...(name === null
                  ? []
                  : [
                      { text: `${words.user} `, color: soft, fontSize: 10 },
                      { text: `${name}   `, font: 'Mono' }
                    ]),
                { text: `${words.password} `, color: soft, fontSize: 10 },
                {
                  text: withBlanksShown(password ?? words.notKept),
                  font: 'Mono',
                  bold: true,
                  fontSize: sizeOnOneLine(password ?? '')
                }
              ]
            }
          ]
        }))
      ]
    }
  ]
}

const LINE_POINTS = 340
/** The advance of every character of the mono face, as a share of its size. */
const MONO_ADVANCE = 0.66

/** The type size at which a passphrase stands on one line: broken at a hyphen, it would be typed wrong. */
function sizeOnOneLine(passphrase: string): number {
  return Math.min(15, Math.floor((10 * LINE_POINTS) / (MONO_ADVANCE * Math.max(1, passphrase.length))) / 10)
}

function unitBlock({ name, place, model, well, wrong }: PackContent['units'][number], words: PackWords): Content {
  return {
    unbreakable: true,
    margin: [0, 0, 0, 8],
    stack: [
      {
        text: [
          { text: name, bold: true, fontSize: 12.5 },
          { text: place ? `  ${place}` : '', color: soft }
        ]
      },
      ...(model
        ? [{ text: model, fontSize: 10, color: soft, margin: [0, 0, 0, 3] as [number, number, number, number] }]
        : []),
      ...(well.length
        ? [
            {
              columns: [
                { text: words.allWell, width: 78, margin: [0, 3, 0, 0] } as Column,
                ...well.flatMap((look): Column[] => [
                  { svg: lensSvg(look.pattern === 'off' ? 'off' : look.colour, 18), width: 20 },
                  { text: look.words, width: 'auto', margin: [0, 3, 6, 0], fontSize: 10.5 }
                ])
              ],
              columnGap: 6
            }
          ]
        : []),
      ...wrong.map(({ looks, says }): Content => ({
        text: [{ text: `${looks.map((look) => look.words).join('; ')}: `, bold: true }, says],
        fontSize: 10,
        margin: [76, 1, 0, 0]
      }))
    ]
  }
}

/** The plan of each storey that holds a unit, three beside each other. */
function planBlock({ plan }: PackContent, words: PackWords): Content[] {
  if (plan.length === 0) return []
  const beside: [number, number] = plan.length > 3 ? [162, 196] : [162, 250]
  const drawn = plan.map(({ svg }): Column => ({
    width: plan.length > 1 ? 166 : '*',
    stack: [{ svg, fit: plan.length > 1 ? beside : [480, 280] }]
  }))
  return [
    {
      unbreakable: true,
      stack: [
        heading(words.plan),
        ...Array.from({ length: Math.ceil(drawn.length / 3) }, (_, row): Content => ({
          columns: drawn.slice(row * 3, row * 3 + 3),
          columnGap: 8,
          margin: [0, 0, 0, 8]
        }))
      ]
    }
  ]
}
