import type { Content, TableCell } from 'pdfmake/interfaces'
import { modelKey, type Catalogue } from '@pasado/core/catalogue/model'
import { lookWords } from '@pasado/core/lamps/look'
import { choiceNames, choices } from '@pasado/core/record/answers'
import { standing, unitName, type VisitRecord } from '@pasado/core/record/record'
import { stageNames, stages } from '@pasado/core/record/stages'
import type { Finding } from '@pasado/core/standard/evaluate'
import { renderPdf, rule, soft } from './pdf'

type Margins = [number, number, number, number]
const heading = (text: string): Content => ({ text, fontSize: 14, bold: true, margin: [0, 12, 0, 5] as Margins })
const lines = { hLineWidth: () => 0.5, vLineWidth: () => 0, hLineColor: () => rule, paddingLeft: () => 0, paddingRight: () => 6 }

/** The company's record of a visit: every fact, finding, waiver, signature and the seal. Secrets stand as dots. */
export async function recordPdf(record: VisitRecord, findings: readonly Finding[], catalogue: Catalogue): Promise<Buffer> {
  const { facts } = record.brief
  const content: Content[] = [
    { text: 'Record of the visit', fontSize: 22, bold: true },
    { text: `${facts.street ?? ''}, ${facts.town ?? ''} · ${facts.customerName ?? ''}`, color: soft, margin: [0, 2, 0, 2] },
    { text: `Visit ${record.visit.id} · opened ${time(record.visit.openedAt)} · ${record.visit.technician.name} · standard ${record.visit.standard.id}, version ${record.visit.standard.version}`, fontSize: 9, color: soft },
    heading('Brief'),
    factsTable([
      ['Reason', facts.reason], ['Access line', facts.accessLine], ['Speed paid for', facts.speedDownMbps === undefined ? undefined : `${facts.speedDownMbps} Mbit/s down, ${facts.speedUpMbps ?? '?'} Mbit/s up`],
      ['Provider’s settings', facts.providerSettings], ['Telephone', facts.phone], ['Second contact', facts.secondContact], ['Telephone through the modem', facts.telephone === undefined ? undefined : facts.telephone ? 'yes' : 'no']
    ]),
    heading('Units'),
    unitsTable(record, catalogue),
    heading('Addresses'),
    addressTable(record),
    heading('Networks'),
    networksTable(record),
    heading('Choices'),
    factsTable(choiceNames.map((choice) => [choices[choice], record.choices[choice]?.answer])),
    heading('Findings'),
    ...stages.flatMap((stage) => findingsOf(stage, findings)),
    { unbreakable: true, stack: [heading('Signatures and seal'), signatures(record)] }
  ]
  const foot = record.seal ? `Sealed ${time(record.seal.at)} · chain ${record.seal.chain.slice(0, 16)}… · key ${record.seal.key}` : 'Not sealed: this is a draft'
  return renderPdf(`Record of the visit, ${facts.street ?? ''}`, foot, content)
}

const time = (iso: string) => iso.slice(0, 16).replace('T', ' ')

function table(head: string[], body: TableCell[][], widths: (string | number)[]): Content {
  if (body.length === 0) return { text: 'None recorded.', color: soft, fontSize: 10 }
  return { fontSize: 9, table: { headerRows: 1, widths, body: [head.map((text) => ({ text, bold: true, color: soft })), ...body] }, layout: lines }
}

function factsTable(pairs: (readonly [string, string | undefined])[]): Content {
  return { fontSize: 9.5, table: { widths: [150, '*'], body: pairs.map(([name, value]) => [{ text: name, color: soft }, value ?? 'not recorded']) }, layout: lines }
}

function unitsTable(record: VisitRecord, catalogue: Catalogue): Content {
  const body = standing(record.units).map((unit): TableCell[] => {
    const model = catalogue.get(modelKey(unit.facts.model ?? '', unit.facts.modelVersion ?? 1))
    const seen = unit.sightings.at(-1)
    return [
      { text: unitName(unit), bold: true }, model ? `${model.maker} ${model.name}` : 'not recorded', unit.facts.role ?? '',
      { text: `${unit.facts.serial ?? ''}\n${unit.facts.mac ?? ''}`, font: 'Mono', fontSize: 8 },
      `${unit.facts.firmwareBefore ?? '?'} to ${unit.facts.firmwareAfter ?? '?'}`,
      `${unit.facts.place ?? 'not recorded'}`,
      seen ? seen.lamps.map((look) => `${look.lamp} ${lookWords(look)}`).join('; ') : 'not seen'
    ]
  })
  return table(['Unit', 'Model', 'Role', 'Serial, MAC', 'Firmware', 'Stands', 'Lamps last seen'], body, [60, 66, 50, 86, 56, 70, '*'])
}

function addressTable(record: VisitRecord): Content {
  const nameOf = (id: string | undefined) => (id && record.units[id] ? unitName(record.units[id]) : undefined)
  const body = [
    ...standing(record.segments).map(({ id, facts }): TableCell[] => {
      const pools = standing(record.pools).filter((pool) => pool.facts.segment === id)
      return [facts.name ?? '', { text: facts.cidr ?? '', font: 'Mono' }, { text: facts.gateway ?? '', font: 'Mono' }, pools.map((pool) => `${nameOf(pool.facts.unit) ?? 'provider'} ${pool.facts.from} to ${pool.facts.to}`).join('\n')]
    }),
    ...standing(record.hosts).map(({ facts }): TableCell[] => [nameOf(facts.unit) ?? facts.name ?? '', { text: facts.address ?? '', font: 'Mono' }, '', facts.reserved ? 'reserved' : 'fixed'])
  ]
  return table(['Segment or device', 'Range or address', 'Gateway', 'DHCP pool'], body, [110, 110, 90, '*'])
}

function networksTable(record: VisitRecord): Content {
  const body = standing(record.networks).map(({ id, facts }): TableCell[] => [
    { text: facts.ssid ?? '', font: 'Mono', bold: true }, facts.use ?? '', (facts.bands ?? []).map((band) => `${band} GHz`).join(', '), facts.security ?? '',
    Object.values(record.secrets).some((secret) => secret.id === id) ? '••••••••' : 'none kept'
  ])
  return table(['Name', 'For', 'Bands', 'Security', 'Passphrase'], body, [150, 60, 100, 80, '*'])
}

function findingsOf(stage: (typeof stages)[number], findings: readonly Finding[]): Content[] {
  const here = findings.filter((one) => one.stage === stage && one.outcome !== 'not-here')
  if (here.length === 0) return []
  const body = here.map((one): TableCell[] => [
    { text: one.outcome, bold: one.outcome === 'breaks' }, one.level, one.rule, one.subject?.name ?? '',
    `${one.evidence}${one.granted ? ` ${one.granted.kind} by ${one.granted.by}: ${one.granted.reason}` : ''}`
  ])
  return [{ text: stageNames[stage], bold: true, fontSize: 10.5, margin: [0, 6, 0, 2] as Margins }, table(['Outcome', 'Level', 'Rule', 'About', 'Evidence'], body, [50, 36, 92, 80, '*'])]
}

function signatures(record: VisitRecord): Content {
  const box = (who: 'customer' | 'technician'): Content => {
    const given = record.signatures[who]
    if (!given) return { text: `${who}: not signed`, color: soft }
    return {
      stack: [
        { svg: `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 600 200"><path d="${given.strokes}" fill="none" stroke="#1D1822" stroke-width="4" stroke-linecap="round" stroke-linejoin="round"/></svg>`, width: 220 },
        { text: `${given.name}, ${who}, ${time(given.at)}`, fontSize: 9.5 },
        { text: `signed ${given.digest.slice(0, 24)}…`, font: 'Mono', fontSize: 7.5, color: soft }
      ]
    }
  }
  const seal: Content = record.seal
    ? { margin: [0, 10, 0, 0] as Margins, fontSize: 8, font: 'Mono', stack: [`record    ${record.seal.record}`, `chain     ${record.seal.chain}`, `standard  ${record.seal.standard}`, `catalogue ${record.seal.catalogue}`, `key       ${record.seal.key}`, `signature ${record.seal.signature}`] }
    : { text: 'Not sealed.', margin: [0, 10, 0, 0] as Margins, color: soft }
  return { stack: [{ columns: [box('customer'), box('technician')] }, seal] }
}
