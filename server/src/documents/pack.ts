import QRCode from 'qrcode'
import type { Column, Content } from 'pdfmake/interfaces'
import { modelKey, type Catalogue, type Model } from '@pasado/core/catalogue/model'
import { placedUnits, planOf } from '@pasado/core/plan/home-plan'
import { planSvg } from '@pasado/core/plan/plan-svg'
import { choiceNames } from '@pasado/core/record/answers'
import { standing, unitName, type Network, type Unit, type VisitRecord } from '@pasado/core/record/record'
import { isMeshMember } from '@pasado/core/standard/rule'
import { passphraseOf } from '@pasado/core/wifi/passphrase'
import { wifiQr } from '@pasado/core/wifi/qr'
import { packWords, type PackWords } from './pack-words'
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
  const { street = '', customerName = '', language = 'en' } = record.brief.facts
  const words = packWords[language]
  const networks = standing(record.networks).filter(({ facts }) => facts.ssid !== undefined && (facts.use === 'main' || facts.use === 'guest' || facts.use === undefined))
  const units = standing(record.units)
  const content: Content[] = [
    { text: words.title, fontSize: 26, bold: true },
    { text: `${customerName} · ${street}`, fontSize: 13, color: soft, margin: [0, 2, 0, 14] },
    heading(words.join),
    { text: words.joinHow, margin: [0, 0, 0, 8] },
    ...(await Promise.all(networks.map((network) => networkBlock(record, network, values, words)))),
    heading(words.whereAll),
    ...units.map((unit) => unitBlock(unit, modelOf(unit, catalogue), record, words)),
    ...planBlock(record, words),
    heading(words.wrong),
    { ol: words.steps(company.name, company.phone), margin: [0, 0, 0, 10], fontSize: 12.5 },
    ...settleBlock(record, catalogue, words),
    heading(words.chose),
    choicesTable(record, words)
  ]
  if (record.brief.facts.telephone) {
    content.push({ margin: [0, 14, 0, 0], table: { widths: ['*'], body: [[{ text: [{ text: words.power, bold: true }, words.powerSays], margin: [8, 6, 8, 6], fontSize: 12.5 }]] }, layout: { hLineColor: () => '#1D1822', vLineColor: () => '#1D1822' } })
  }
  return renderPdf(`${words.title}, ${street}`, `${company.name} · ${company.phone}`, content, {}, words.of)
}

const heading = (text: string): Content => ({ text, fontSize: 15, bold: true, margin: [0, 12, 0, 6] })

async function networkBlock(record: VisitRecord, network: Network, values: ReadonlyMap<string, string>, words: PackWords): Promise<Content> {
  const { ssid, security, hidden } = network.facts
  const secret = passphraseOf(record, network)
  const passphrase = secret ? values.get(secret.ref) : undefined
  const kind = security === 'open' ? 'open' : security === 'wep' ? 'wep' : 'wpa'
  const canJoin = kind === 'open' || passphrase !== undefined
  const payload = canJoin ? wifiQr({ ssid: ssid!, security: kind, ...(kind === 'open' ? {} : { passphrase }), ...(hidden ? { hidden } : {}) }).payload : null
  const left: Content[] = [
    { text: network.facts.use === 'guest' ? words.forGuests : words.forHome, bold: true, fontSize: 12.5, margin: [0, 2, 0, 6] },
    { text: words.name, color: soft, fontSize: 10 },
    { text: ssid!, font: 'Mono', fontSize: Math.min(17, sizeOnOneLine(ssid!) + 2), bold: true, noWrap: true, margin: [0, 0, 0, 6] },
    { text: words.passphrase, color: soft, fontSize: 10 },
    { text: kind === 'open' ? words.open : (passphrase ?? words.notKept), font: 'Mono', fontSize: sizeOnOneLine(passphrase ?? ''), bold: true, noWrap: true }
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

function unitBlock(unit: Unit, model: Model | null, record: VisitRecord, words: PackWords): Content {
  const dark = record.choices.lamp?.answer === 'off' && model?.lampsCanBeOff
  const good = model?.states.find((state) => state.good)
  const wrong = (model?.states ?? []).filter((state) => !state.good && state.maxMin === undefined && state.state !== model!.start).slice(0, 4)
  const looks = dark ? [{ lamp: '', colour: 'off', pattern: 'off' as const }] : (good?.lamps ?? [])
  return {
    unbreakable: true, margin: [0, 0, 0, 8],
    stack: [
      { text: [{ text: unitName(unit), bold: true, fontSize: 12.5 }, { text: unit.facts.place ? `  ${unit.facts.place}` : '', color: soft }] },
      ...(model ? [{ text: `${model.maker} ${model.name}`, fontSize: 10, color: soft, margin: [0, 0, 0, 3] as [number, number, number, number] }] : []),
      ...(looks.length ? [{ columns: [{ text: words.allWell, width: 78, margin: [0, 3, 0, 0] } as Column, ...looks.flatMap((look) => lampWords(look, model, words))], columnGap: 6 }] : []),
      ...wrong.map((state): Content => ({
        text: [{ text: `${state.lamps.map((look) => `${nameOf(look.lamp, model)}${words.look(look)}`).join('; ')}: `, bold: true }, words.state(state)],
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

function lampWords(look: { lamp: string; colour: string; pattern: 'off' | 'solid' | 'blink' | 'fast-blink' | 'pulse' | 'alternate' }, model: Model | null, words: PackWords): Column[] {
  return [
    { svg: lensSvg(look.pattern === 'off' ? 'off' : look.colour, 18), width: 20 },
    { text: `${nameOf(look.lamp, model)}${words.look(look)}`, width: 'auto', margin: [0, 3, 6, 0], fontSize: 10.5 }
  ]
}

function choicesTable(record: VisitRecord, words: PackWords): Content {
  const said = choiceNames.map((choice): [Content, Content] => { const answer = record.choices[choice]?.answer; return [{ text: words.choices[choice] }, { text: answer === undefined ? words.notAsked : (words.answers[answer] ?? answer), bold: true }] })
  return { table: { widths: [200, '*'], body: said }, layout: 'lightHorizontalLines' }
}

/** The plan of each storey that holds a unit, where the home was drawn. */
function planBlock(record: VisitRecord, words: PackWords): Content[] {
  const drawnPlan = planOf(record)
  // What was complained of is the technician's note, not the customer's.
  const plan = { ...drawnPlan, rooms: drawnPlan.rooms.map((room) => ({ ...room, complained: false })) }
  const placed = placedUnits(record, plan)
  const storeys = plan.storeys.filter(({ id }) => placed.some(({ storey }) => storey === id))
  if (storeys.length === 0) return []
  const drawn = storeys.map(({ id, name }): Column => ({ width: storeys.length > 1 ? 166 : '*', stack: [{ svg: planSvg(plan, { storey: id, title: name, units: placed.filter(({ storey }) => storey === id).map(({ x, y, storey, unit }) => ({ x, y, storey, name: unitName(unit) })) }), fit: storeys.length > 1 ? [162, 250] : [480, 280] }] }))
  return [{ unbreakable: true, stack: [heading(words.plan), ...Array.from({ length: Math.ceil(drawn.length / 3) }, (_, row): Content => ({ columns: drawn.slice(row * 3, row * 3 + 3), columnGap: 8, margin: [0, 0, 0, 8] }))] }]
}

/** That a mesh needs a day, and when it is looked at again. */
function settleBlock(record: VisitRecord, catalogue: Catalogue, words: PackWords): Content[] {
  const members = standing(record.units).filter((unit) => isMeshMember({ unit, model: modelOf(unit, catalogue) }))
  if (members.length < 2) return []
  const [check] = Object.values(record.checks ?? {}).filter(({ cancelled }) => !cancelled).sort((a, b) => (a.from < b.from ? -1 : 1))
  const when = check ? new Intl.DateTimeFormat(words.locale, { weekday: 'long', day: 'numeric', month: 'long', hour: '2-digit', minute: '2-digit' }).format(new Date(check.from)) : null
  return [heading(words.settle), { text: words.settleSays(when), fontSize: 12.5 }]
}
