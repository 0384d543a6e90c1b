import type { Content, TableCell } from 'pdfmake/interfaces'
import { modelOf, type Catalogue } from '@pasado/core/catalogue/model'
import type { ToldOfForeign } from '@pasado/core/documents/foreign'
import { lookWords } from '@pasado/core/catalogue/look'
import { choiceNames, choices } from '@pasado/core/record/answers'
import { equipmentOf, stayingOf, staysName } from '@pasado/core/record/equipment'
import { unheardTold } from '@pasado/core/record/unheard'
import { sparesOf, spareTold } from '@pasado/core/record/spares'
import { slipsTold } from '@pasado/core/documents/slip-words'
import { staysWords } from '@pasado/core/documents/stays-words'
import { standing, unitName, type VisitRecord } from '@pasado/core/record/record'
import { stageNames, stages } from '@pasado/core/record/stages'
import type { Changes, Revision } from '@pasado/core/documents/change'
import { cautionsOf } from '@pasado/core/rules/cautions'
import type { Finding } from '@pasado/core/rules/evaluate'
import { withBlanksShown } from '@pasado/core/values/on-paper'
import { listed } from '@pasado/core/values/list'
import type { BecauseLines } from '../because/lines'
import { renderPdf, soft } from './pdf'
import { beginsAnew, factsTable, heading, table, timeIn, type Margins, type TellTime } from './record-parts'
import { changesTable, course, measurements, photographs, signaturesAndSeal, type SmallPhoto } from './record-proof'

/** What the company's record is made from. */
export interface RecordParts extends Revision {
  findings: readonly Finding[]
  /** The lines that each of them rests on, in the same order. */
  because?: BecauseLines
  photos?: readonly SmallPhoto[]
  /** What changed: from the plan, from what was found, and from the visit before where there was one. */
  changes?: readonly { title: string; changes: Changes }[]
  /** That it came as a file, and what of it is not this company's. */
  foreign?: ToldOfForeign | null
  /** What does not hold of its logbook or its seal. */
  broken?: string | null
}

/**
 * The company's record of a visit, to be kept for years: every fact, measurement, finding, waiver, photo, signature and the seal, as PDF/A
 * with all fonts in it. Secrets stand as dots.
 */
export async function recordPdf(parts: RecordParts): Promise<Buffer> {
  const { record, findings, catalogue } = parts
  const { facts } = record.brief
  const time = timeIn(parts.zone)
  const cautions = cautionsOf(record, catalogue)
  const spares = sparesOf(record)
  const content: Content[] = [
    { text: 'Record of the visit', fontSize: 22, bold: true },
    {
      text: `${facts.street ?? ''}, ${facts.town ?? ''} · ${facts.nameOnPaper ?? facts.customerName ?? ''}`,
      margin: [0, 2, 0, 2]
    },
    {
      text: `Visit ${record.visit.id} · opened ${time(record.visit.openedAt)} · ${record.visit.technician.name} · standard ${record.visit.standard.id}, version ${record.visit.standard.version}`,
      fontSize: 9
    },
    {
      text: `Times are those of ${parts.zone ?? new Intl.DateTimeFormat().resolvedOptions().timeZone}.`,
      fontSize: 9,
      color: soft
    },
    ...(parts.broken
      ? [
          {
            text: `THIS RECORD DOES NOT HOLD: ${parts.broken}. Something was altered where it is kept; nothing in it is proven.`,
            bold: true,
            fontSize: 13,
            margin: [0, 8, 0, 4] as Margins
          }
        ]
      : []),
    ...(parts.foreign
      ? [{ text: foreignWords(parts.foreign, time), bold: true, fontSize: 10, margin: [0, 6, 0, 0] as Margins }]
      : []),
    heading('Brief'),
    briefTable(record),
    heading('Units'),
    unitsTable(record, catalogue),
    ...(spares.length > 0 ? [{ text: `Not needed: ${spares.map(spareTold).join('; ')}.`, fontSize: 9 }] : []),
    heading('Addresses'),
    addressTable(record),
    heading('Networks'),
    networksTable(record),
    ...measurements(parts),
    heading('Choices'),
    choicesTable(record, time),
    ...(cautions.length
      ? [heading('Cautions that this visit called for'), { ul: cautions.map(({ text }) => text), fontSize: 9 }]
      : []),
    heading('Findings'),
    ...stages.flatMap((stage) => findingsOf(stage, findings, parts.because)),
    ...(record.slips ? [heading('Taken back: it was never so'), { ul: slipsTold(record, time), fontSize: 9 }] : []),
    ...(record.unheard
      ? [heading('Sealed without devices that were not heard from'), unheardText(record.unheard, time)]
      : []),
    ...course(record, time),
    ...(parts.changes ?? []).flatMap(({ title, changes }) => changesTable(title, changes, time)),
    ...photographs(parts.photos ?? [], time),
    await signaturesAndSeal(record, time, whoElse(parts))
  ]
  const foot = record.seal
    ? `Sealed ${time(record.seal.at)} · chain ${record.seal.chain.slice(0, 16)}… · key ${record.seal.key}`
    : 'Not sealed: this is a draft'
  return renderPdf(`Record of the visit, ${facts.street ?? ''}`, foot, content, {
    version: '1.7',
    subset: 'PDF/A-2b',
    language: 'en',
    displayTitle: true,
    pageBreakBefore: beginsAnew
  } as never)
}

function unheardText({ outboxes, reason, by }: NonNullable<VisitRecord['unheard']>, time: TellTime): Content {
  return { text: `Not waited for: ${unheardTold(outboxes, time)}. ${by.name}: ${reason}`, fontSize: 9 }
}

function briefTable(record: VisitRecord): Content {
  const { facts } = record.brief
  const { speedDownMbps, speedUpMbps, telephone } = facts
  const throughIt = telephone ? 'yes' : 'no'
  return factsTable([
    ['Reason', facts.reason],
    ['Access line', facts.accessLine],
    [
      'Speed paid for',
      speedDownMbps === undefined ? undefined : `${speedDownMbps} Mbit/s down, ${speedUpMbps ?? '?'} Mbit/s up`
    ],
    ['Provider’s settings', facts.providerSettings],
    ['Provider’s reference', facts.providerReference ?? '–'],
    ['Telephone', facts.phone],
    ['Second contact', facts.secondContact],
    ['Telephone through the modem', telephone === undefined ? undefined : throughIt],
    ...stayingOf(record).map((stays) => ['Stays', `${staysName(stays)}: ${staysWords(stays)}`] as const)
  ])
}

function choicesTable(record: VisitRecord, time: TellTime): Content {
  const { givenAt, how } = record.pack
  return factsTable([
    ...choiceNames.map((choice) => [choices[choice], record.choices[choice]?.answer] as const),
    ['Who keeps the secrets', custodyWords(record)],
    ['Pack', givenAt ? `given ${how ?? ''}, ${time(givenAt)}` : 'not given']
  ])
}

/** Who keeps the home's secrets, which, and until when; undefined where nobody was asked. */
function custodyWords({ custody, secretsErased }: VisitRecord): string | undefined {
  if (!custody) return undefined
  const keeps = custody.keeps ? `: ${custody.keeps.join(', ').replaceAll('-', ' ')}` : ''
  const until = custody.until ? `, until ${custody.until}` : ''
  return `${custody.custody.replaceAll('-', ' ')}${keeps}${until}${secretsErased ? '; erased since' : ''}`
}

/** That a visit came as a file, in one sentence. */
function foreignWords({ by, at, standard, models, key }: ToldOfForeign, time: TellTime): string {
  const others = [
    key && 'its seal is by a key that is not this company’s',
    standard && 'it was checked by a standard that is not in force here',
    models.length > 0 && `${models.length} of its models are not of this catalogue`
  ].filter(Boolean)
  return `Taken in from a file by ${by}, ${time(at)}${others.length ? `: ${others.join('; ')}` : ''}.`
}

/** What is said beside the signatures: where others than usual had a hand in it. */
function whoElse({ record }: RecordParts): string[] {
  const { review, seal, visit } = record
  const notes: string[] = []
  if (seal && seal.by.id !== visit.technician.id)
    notes.push(`Sealed by ${seal.by.name}; ${visit.technician.name} had the visit.`)
  if (review?.state === 'approved' && Object.values(record.waivers).some(({ by }) => by.id === review.by.id))
    notes.push(`${review.by.name} approved it, and had waived something in it: there was no other lead.`)
  return notes
}

function unitsTable(record: VisitRecord, catalogue: Catalogue): Content {
  const body = standing(record.units).map((unit): TableCell[] => {
    const model = modelOf(unit, catalogue)
    const seen = unit.sightings.at(-1)
    return [
      { text: unitName(unit), bold: true },
      model ? `${model.maker} ${model.name}` : 'not recorded',
      unit.facts.role ?? '',
      { text: `${unit.facts.serial ?? ''}\n${unit.facts.mac ?? ''}`, font: 'Mono', fontSize: 8 },
      `${unit.facts.firmwareBefore ?? '?'} to ${unit.facts.firmwareAfter ?? '?'}`,
      `${unit.facts.place ?? 'not recorded'}`,
      seen ? seen.lamps.map((look) => `${look.lamp} ${lookWords(look)}`).join('; ') : 'not seen'
    ]
  })
  return table(['Unit', 'Model', 'Role', 'Serial, MAC', 'Firmware', 'Stands', 'Lamps last seen'], body, [
    60,
    66,
    50,
    86,
    56,
    70,
    '*'
  ])
}

function addressTable(record: VisitRecord): Content {
  const nameOf = (id: string | undefined) => equipmentOf(record, id)?.name
  const body = [
    ...standing(record.segments).map(({ id, facts }): TableCell[] => {
      const pools = standing(record.pools).filter((pool) => pool.facts.segment === id)
      return [
        facts.name ?? '',
        { text: facts.cidr ?? '', font: 'Mono' },
        { text: facts.gateway ?? '', font: 'Mono' },
        pools
          .map((pool) => `${nameOf(pool.facts.unit) ?? 'provider'} ${pool.facts.from} to ${pool.facts.to}`)
          .join('\n')
      ]
    }),
    ...standing(record.hosts).map(({ facts }): TableCell[] => [
      nameOf(facts.unit) ?? facts.name ?? '',
      { text: facts.address ?? '', font: 'Mono' },
      '',
      facts.reserved ? 'reserved' : 'fixed'
    ])
  ]
  return table(['Segment or device', 'Range or address', 'Gateway', 'DHCP pool'], body, [110, 110, 90, '*'])
}

function networksTable(record: VisitRecord): Content {
  const body = standing(record.networks).map(({ id, facts }): TableCell[] => [
    {
      stack: [
        { text: withBlanksShown(facts.ssid ?? ''), font: 'Mono', bold: true },
        ...(facts.transcription === undefined ? [] : [{ text: facts.transcription }])
      ]
    },
    facts.use ?? '',
    (facts.bands ?? []).map((band) => `${band} GHz`).join(', '),
    facts.security ?? '',
    Object.values(record.secrets).some((secret) => secret.id === id) ? '••••••••' : 'none kept'
  ])
  return table(['Name', 'For', 'Bands', 'Security', 'Passphrase'], body, [150, 60, 100, 80, '*'])
}

function findingsOf(
  stage: (typeof stages)[number],
  findings: readonly Finding[],
  because: BecauseLines | undefined
): Content[] {
  const here = findings.flatMap((finding, at) =>
    finding.stage === stage && finding.outcome !== 'not-here' ? [{ finding, lines: because?.[at] ?? [] }] : []
  )
  if (here.length === 0) return []
  const body = here.map(({ finding, lines }): TableCell[] => [
    { text: finding.outcome, bold: finding.outcome === 'breaks' },
    finding.level,
    finding.rule,
    finding.subject?.name ?? '',
    `${finding.evidence}${finding.granted ? ` ${finding.granted.kind} by ${finding.granted.by}: ${finding.granted.reason}` : ''}${finding.lapsed ? ` ${finding.lapsed}` : ''}${lines.length > 0 ? ` Rests on ${lines.length === 1 ? 'line' : 'lines'} ${listed(lines.map(String))}.` : ''}`
  ])
  return [
    { text: stageNames[stage], bold: true, fontSize: 10.5, headlineLevel: 1, margin: [0, 6, 0, 2] as Margins },
    table(['Outcome', 'Level', 'Rule', 'About', 'Evidence'], body, [50, 36, 92, 80, '*'])
  ]
}
