import QRCode from 'qrcode'
import type { Column, Content } from 'pdfmake/interfaces'
import { modelKey, type Catalogue, type Model } from '@pasado/core/catalogue/model'
import { lookWords } from '@pasado/core/lamps/look'
import { choiceNames, choices } from '@pasado/core/record/answers'
import { secretFor, standing, unitName, type Network, type Unit, type VisitRecord } from '@pasado/core/record/record'
import { wifiQr } from '@pasado/core/wifi/qr'
import { lensSvg, renderPdf, rule, soft } from './pdf'

/** What a pack is made from. */
export interface PackParts {
  record: VisitRecord
  catalogue: Catalogue
  /** The values of the visit's secrets, by reference. */
  values: ReadonlyMap<string, string>
  company: { name: string; phone: string }
}

const QR_POINTS = 118

/** The customer's pack: what they need on the fridge, in large type, on paper that may be grey. */
export async function packPdf({ record, catalogue, values, company }: PackParts): Promise<Buffer> {
  const { street = '', customerName = '' } = record.brief.facts
  const networks = standing(record.networks).filter(({ facts }) => facts.ssid !== undefined && (facts.use === 'main' || facts.use === 'guest' || facts.use === undefined))
  const units = standing(record.units)
  const content: Content[] = [
    { text: 'Your home network', fontSize: 26, bold: true },
    { text: `${customerName} · ${street}`, fontSize: 13, color: soft, margin: [0, 2, 0, 14] },
    heading('Join it'),
    { text: 'Point a phone’s camera at the square, or choose the name and type the passphrase. O is a letter, 0 is a zero with a stroke.', margin: [0, 0, 0, 8] },
    ...(await Promise.all(networks.map((network) => networkBlock(record, network, values)))),
    heading('Where everything stands, and its lamp'),
    ...units.map((unit) => unitBlock(unit, modelOf(unit, catalogue), record)),
    heading('If it does not work'),
    { ol: ['Look at the lamps above: each says what to do.', 'Restart: unplug the gateway or router, wait ten seconds, plug it in, wait five minutes.', `Still not? Call ${company.name}, ${company.phone}. Say what the lamps show.`], margin: [0, 0, 0, 10], fontSize: 12.5 },
    heading('What you chose'),
    choicesTable(record)
  ]
  if (record.brief.facts.telephone) {
    content.push({ margin: [0, 14, 0, 0], table: { widths: ['*'], body: [[{ text: [{ text: 'No calls in a power cut. ', bold: true }, 'Your telephone goes through the network box. Without mains power it cannot call anybody, emergency services included. Keep a charged mobile phone.'], margin: [8, 6, 8, 6], fontSize: 12.5 }]] }, layout: { hLineColor: () => '#1D1822', vLineColor: () => '#1D1822' } })
  }
  return renderPdf(`Your home network, ${street}`, `${company.name} · ${company.phone}`, content)
}

const heading = (text: string): Content => ({ text, fontSize: 15, bold: true, margin: [0, 12, 0, 6] })

async function networkBlock(record: VisitRecord, network: Network, values: ReadonlyMap<string, string>): Promise<Content> {
  const { ssid, security, hidden } = network.facts
  const secret = secretFor(record, 'wifi-passphrase', network.id)
  const passphrase = secret ? values.get(secret.ref) : undefined
  const kind = security === 'open' ? 'open' : security === 'wep' ? 'wep' : 'wpa'
  const canJoin = kind === 'open' || passphrase !== undefined
  const payload = canJoin ? wifiQr({ ssid: ssid!, security: kind, ...(kind === 'open' ? {} : { passphrase }), ...(hidden ? { hidden } : {}) }).payload : null
  const left: Content[] = [
    { text: network.facts.use === 'guest' ? 'For guests' : 'For your home', bold: true, fontSize: 12.5, margin: [0, 2, 0, 6] },
    { text: 'Name', color: soft, fontSize: 10 },
    { text: ssid!, font: 'Mono', fontSize: Math.min(17, sizeOnOneLine(ssid!) + 2), bold: true, noWrap: true, margin: [0, 0, 0, 6] },
    { text: 'Passphrase', color: soft, fontSize: 10 },
    { text: kind === 'open' ? 'none: anybody can join' : (passphrase ?? 'not kept by us'), font: 'Mono', fontSize: sizeOnOneLine(passphrase ?? ''), bold: true, noWrap: true }
  ]
  const right: Content = payload ? { svg: await QRCode.toString(payload, { type: 'svg', margin: 1, errorCorrectionLevel: 'M' }), width: QR_POINTS } : { text: '' }
  return {
    unbreakable: true, margin: [0, 0, 0, 8],
    table: { widths: ['*', QR_POINTS + 8], body: [[{ stack: left, margin: [8, 6, 0, 6] }, { stack: [right], margin: [0, 4, 4, 4] }]] },
    layout: { hLineColor: () => rule, vLineColor: (index: number) => (index === 1 ? 'white' : rule), vLineWidth: (index: number) => (index === 1 ? 0 : 1) }
  }
}

const LINE_POINTS = 340
/** The advance of every character of the mono face, as a share of its size. */
const MONO_ADVANCE = 0.66

/** The type size at which a passphrase stands on one line: broken at a hyphen, it would be typed wrong. */
function sizeOnOneLine(passphrase: string): number {
  return Math.min(15, Math.floor((10 * LINE_POINTS) / (MONO_ADVANCE * Math.max(1, passphrase.length))) / 10)
}

function modelOf(unit: Unit, catalogue: Catalogue): Model | null {
  return unit.facts.model === undefined ? null : (catalogue.get(modelKey(unit.facts.model, unit.facts.modelVersion ?? 1)) ?? null)
}

function unitBlock(unit: Unit, model: Model | null, record: VisitRecord): Content {
  const dark = record.choices.lamp?.answer === 'off' && model?.lampsCanBeOff
  const good = model?.states.find((state) => state.good)
  const wrong = (model?.states ?? []).filter((state) => !state.good && state.maxMin === undefined && state.state !== model!.start).slice(0, 4)
  const looks = dark ? [{ lamp: '', colour: 'off', pattern: 'off' as const }] : (good?.lamps ?? [])
  return {
    unbreakable: true, margin: [0, 0, 0, 8],
    stack: [
      { text: [{ text: unitName(unit), bold: true, fontSize: 12.5 }, { text: unit.facts.place ? `  ${unit.facts.place}` : '', color: soft }] },
      ...(model ? [{ text: `${model.maker} ${model.name}`, fontSize: 10, color: soft, margin: [0, 0, 0, 3] as [number, number, number, number] }] : []),
      ...(looks.length ? [{ columns: [{ text: 'All is well:', width: 70, margin: [0, 3, 0, 0] } as Column, ...looks.flatMap((look) => lampWords(look, model))], columnGap: 6 }] : []),
      ...wrong.map((state): Content => ({
        text: [{ text: `${state.lamps.map((look) => `${nameOf(look.lamp, model)}${lookWords(look)}`).join('; ')}: `, bold: true }, `${state.meaning}. ${state.action}.`],
        fontSize: 10, margin: [76, 1, 0, 0]
      }))
    ]
  }
}

/** The name of a lamp before its look, where a model has several. */
function nameOf(lamp: string, model: Model | null): string {
  if (!model || model.lamps.length < 2) return ''
  return `${model.lamps.find(({ id }) => id === lamp)?.name ?? lamp} `
}

function lampWords(look: { lamp: string; colour: string; pattern: 'off' | 'solid' | 'blink' | 'fast-blink' | 'pulse' | 'alternate' }, model: Model | null): Column[] {
  return [
    { svg: lensSvg(look.pattern === 'off' ? 'off' : look.colour, 18), width: 20 },
    { text: `${nameOf(look.lamp, model)}${lookWords(look)}`, width: 'auto', margin: [0, 3, 6, 0], fontSize: 10.5 }
  ]
}

function choicesTable(record: VisitRecord): Content {
  const said = choiceNames.map((choice): [Content, Content] => [{ text: choices[choice] }, { text: record.choices[choice]?.answer ?? 'not asked yet', bold: true }])
  return { table: { widths: [200, '*'], body: said }, layout: 'lightHorizontalLines' }
}
