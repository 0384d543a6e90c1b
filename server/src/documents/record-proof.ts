import type { Content, TableCell } from 'pdfmake/interfaces'
import { judgeRooms, measured, roomFloor, sourceOf, type Measured } from '@pasado/core/work/prove/rooms'
import { equipmentOf } from '@pasado/core/record/equipment'
import { standing, unitName, type VisitRecord } from '@pasado/core/record/record'
import type { Changes, Revision } from '@pasado/core/documents/change'
import { sealCode } from '@pasado/core/record/seal'
import { nameOfStage } from '@pasado/core/record/stages'
import QRCode from 'qrcode'
import { ink, soft } from './pdf'
import { heading, lines, table, timeIn, type Margins, type TellTime } from './record-parts'

/** A photo as the record shows it: small. */
export interface SmallPhoto {
  about: string
  caption: string | null
  at: string
  /** JPEG; null for the picture of a label, which stays in the vault. */ jpeg: Buffer | null
}

const figure = (summary: Measured['down'], unit: string) =>
  summary === null
    ? '–'
    : `${Math.round(summary.median * 10) / 10} ${unit}${summary.count > 1 ? `\n${summary.count} runs, ${Math.round(summary.least)} to ${Math.round(summary.most)}` : ''}`

/** What was measured: at the source, room by room against the floor, at wired ports. */
export function measurements(revision: Revision): Content[] {
  const { record, catalogue, standard, zone } = revision
  const time = timeIn(zone)
  const source = sourceOf(revision, catalogue)
  const floor = roomFloor(standard.policy, source)
  const said = (result: Measured) => {
    const meta = result.measurement.meta.runs
    return `${result.measurement.facts.how?.replaceAll('-', ' ') ?? ''}${meta ? `, ${meta.by.name}, ${time(meta.at)}` : ''}`
  }
  const unit = (id: string | undefined) => equipmentOf(record, id)?.name ?? ''
  const row = (where: string, result: Measured, outcome: string): TableCell[] => [
    { text: where, bold: true },
    unit(result.measurement.facts.unit) +
      (result.measurement.facts.band ? ` ${result.measurement.facts.band} GHz` : ''),
    result.measurement.facts.dbm === undefined ? '–' : `${result.measurement.facts.dbm} dBm`,
    figure(result.down, 'Mbit/s'),
    figure(result.up, 'Mbit/s'),
    figure(result.idle, 'ms'),
    outcome,
    { text: said(result), fontSize: 7.5 }
  ]
  const body = [
    ...(source ? [row('Source, by cable', source, '')] : []),
    ...judgeRooms(revision, catalogue, standard.policy).flatMap(({ room, outcome, bands }) =>
      bands.map((band, at) => row(room.facts.name ?? 'Room', band, at === 0 ? outcome : ''))
    ),
    ...measured(revision, catalogue, ({ at }) => at === 'port').map((result) => row('Wired port', result, ''))
  ]
  const seen = standing(record.units).flatMap(({ path, ...joined }) =>
    path
      ? [
          `${unitName(joined as never)}: ${path.before ?? '?'} to ${path.after ?? '?'} devices, address ${path.address}${path.server ? ` from ${unit(path.server)}` : ''}`
        ]
      : []
  )
  return [
    heading('Measured'),
    {
      text: `Floor of a room: ${Math.round(floor.mbps)} Mbit/s, ${floor.reason}; ${floor.dbm} dBm; at most ${floor.addedMs} ms added.`,
      fontSize: 9,
      color: soft,
      margin: [0, 0, 0, 3] as Margins
    },
    table(
      ['Where', 'Through', 'Signal', 'Down', 'Up', 'Latency', 'Outcome', 'How'],
      body,
      [70, 70, 40, 62, 56, 46, 46, '*'],
      'Nothing was measured.'
    ),
    ...(seen.length
      ? [{ text: `Somebody was really on it: ${seen.join('; ')}.`, fontSize: 9, margin: [0, 4, 0, 0] as Margins }]
      : []),
    ...Object.values(record.checks ?? {})
      .filter(({ cancelled }) => !cancelled)
      .map(({ from, to }): Content => ({
        text: `Looked at again when it has settled: ${time(from)} to ${time(to)}.`,
        fontSize: 9,
        margin: [0, 3, 0, 0]
      }))
  ]
}

/** Photos, four in a row; of labels only that they are there. */
export function photographs(photos: readonly SmallPhoto[], time: TellTime): Content[] {
  const shown = photos.flatMap((photo) => (photo.jpeg ? [{ ...photo, jpeg: photo.jpeg }] : []))
  const labels = photos.length - shown.length
  if (photos.length === 0) return []
  const rows = Array.from({ length: Math.ceil(shown.length / 4) }, (_, at) => shown.slice(at * 4, at * 4 + 4))
  return [
    heading('Photos'),
    ...rows.map((row): Content => ({
      unbreakable: true,
      columnGap: 8,
      margin: [0, 0, 0, 8],
      columns: row.map(({ about, caption, at, jpeg }) => ({
        width: 118,
        stack: [
          { image: `data:image/jpeg;base64,${jpeg.toString('base64')}`, fit: [118, 118] },
          { text: `${about}${caption ? `: ${caption}` : ''}`, fontSize: 8 },
          { text: time(at), fontSize: 7.5, color: soft }
        ]
      }))
    })),
    ...(labels
      ? [
          {
            text: `${labels} ${labels === 1 ? 'picture of a label is' : 'pictures of labels are'} kept as secrets and not shown here.`,
            fontSize: 9,
            color: soft
          }
        ]
      : [])
  ]
}

/** What changed from one revision to another, thing by thing with why. */
export function changesTable(title: string, { things, rooms, notAgain }: Changes, time: TellTime): Content[] {
  const body = [
    ...things.flatMap((thing): TableCell[][] => {
      const first = { text: thing.name, bold: true }
      const why = thing.why.join('; ')
      if (thing.is !== 'changed')
        return [
          [
            first,
            { text: thing.is === 'added' ? 'new' : 'gone', bold: true },
            {
              text:
                thing.is === 'added'
                  ? thing.changes
                      .filter(({ after }) => after !== null)
                      .slice(0, 8)
                      .map(({ label, after }) => `${label} ${after}`)
                      .join(', ')
                  : '',
              colSpan: 2
            },
            '',
            why
          ]
        ]
      return thing.changes.map((change, at): TableCell[] => [
        at === 0 ? first : '',
        change.label,
        change.before ?? 'not recorded',
        { text: change.after ?? 'not recorded', bold: true },
        [...change.why, ...(at === 0 && why ? [why] : []), change.by ? `${change.by.name}, ${time(change.by.at)}` : '']
          .filter(Boolean)
          .join('; ')
      ])
    }),
    ...rooms.map(({ name, before, after }): TableCell[] => {
      const told = (outcome: typeof before) =>
        outcome
          ? `${outcome.downMbps === null ? '?' : Math.round(outcome.downMbps)} Mbit/s, ${outcome.dbm ?? '?'} dBm`
          : 'not measured'
      return [{ text: name, bold: true }, 'room', told(before), { text: told(after), bold: true }, '']
    })
  ]
  return [
    heading(title),
    table(['What', '', 'Before', 'After', 'Why, who, when'], body, [80, 76, 104, 104, '*'], 'Nothing differs.'),
    ...(notAgain
      ? [
          {
            text: `${notAgain} rooms and rules of the visit before were not looked at again.`,
            fontSize: 9,
            color: soft
          }
        ]
      : [])
  ]
}

const upper = (text: string) => text.replace(/^./, (first) => first.toUpperCase())

/** What was agreed at hand-over, waits, notes and the review. */
export function course(record: VisitRecord, time: TellTime): Content[] {
  const waits = Object.values(record.waits)
    .sort((a, b) => a.seq - b.seq)
    .map(({ what, unit, at, endedAt, usualMin, mostMin }): TableCell[] => [
      what,
      unit && record.units[unit] ? unitName(record.units[unit]) : '',
      time(at),
      endedAt ? `${Math.max(0, Math.round((Date.parse(endedAt) - Date.parse(at)) / 6_000) / 10)} min` : 'not ended',
      `${usualMin} to ${mostMin} min`
    ])
  const notes = record.notes.map(({ text, stage, by, at }): TableCell[] => [
    text,
    stage ? nameOfStage(stage) : '',
    `${by.name}, ${time(at)}`
  ])
  const searches = Object.values(record.searches ?? {})
    .filter(({ found }) => found !== null)
    .map(
      ({ found }) =>
        `${upper(found!.cause.replaceAll('-', ' '))}: ${found!.end} (${Math.round(found!.probability * 100)} % sure)`
    )
  return [
    ...(waits.length
      ? [heading('Waits'), table(['What', 'Unit', 'Began', 'Took', 'Usually, at most'], waits, ['*', 90, 84, 56, 80])]
      : []),
    ...(searches.length ? [heading('Faults found'), { ul: searches, fontSize: 9.5 }] : []),
    ...(notes.length ? [heading('Notes'), table(['Note', 'Stage', 'By'], notes, ['*', 60, 130])] : []),
    ...(record.review
      ? [
          {
            text: `Review: ${record.review.state} by ${record.review.by.name}, ${time(record.review.at)}${record.review.remark ? `: ${record.review.remark}` : ''}`,
            fontSize: 9.5,
            margin: [0, 8, 0, 0] as Margins
          }
        ]
      : [])
  ]
}

/** Signatures, and the seal in words and as a code that `pasado verify --seal` proves. */
export async function signaturesAndSeal(
  record: VisitRecord,
  time: TellTime,
  notes: readonly string[] = []
): Promise<Content> {
  const box = (who: 'customer' | 'technician'): Content => {
    const given = record.signatures[who]
    if (!given) return { text: `${who}: not signed`, color: soft }
    return {
      stack: [
        {
          svg: `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 600 200"><path d="${given.strokes}" fill="none" stroke="${ink}" stroke-width="4" stroke-linecap="round" stroke-linejoin="round"/></svg>`,
          width: 220
        },
        { text: `${given.name}, ${who}, ${time(given.at)}`, fontSize: 9.5 },
        {
          text: `${who === 'customer' ? 'on the device of' : 'logged in as'} ${given.by.name}${given.by.id === record.visit.technician.id ? '' : `; ${record.visit.technician.name} had the visit`}`,
          fontSize: 8,
          color: soft
        },
        { text: `signed ${given.digest.slice(0, 24)}…`, font: 'Mono', fontSize: 7.5, color: soft }
      ]
    }
  }
  return {
    unbreakable: true,
    stack: [
      { ...(heading('Signatures and seal') as object), headlineLevel: 0 } as Content,
      { columns: [box('customer'), box('technician')] },
      ...(notes.length ? [{ ul: [...notes], fontSize: 9, margin: [0, 6, 0, 0] as Margins }] : []),
      await sealBlock(record, time)
    ]
  }
}

async function sealBlock(record: VisitRecord, time: TellTime): Promise<Content> {
  if (!record.seal) return { text: 'Not sealed.', margin: [0, 10, 0, 0] as Margins, color: soft }
  const { seal } = record
  return {
    margin: [0, 10, 0, 0] as Margins,
    layout: lines,
    table: {
      widths: ['*', 160],
      body: [
        [
          {
            fontSize: 8,
            font: 'Mono',
            preserveLeadingSpaces: true,
            stack: [
              `sealed    ${time(seal.at)}`,
              `by        ${seal.by.name}`,
              ...(['record', 'chain', 'standard', 'catalogue', 'verdicts'] as const).flatMap((name) => {
                const digest = seal[name]
                return digest === undefined
                  ? []
                  : [`${name.padEnd(10)}${digest.slice(0, 32)}`, `${''.padEnd(10)}${digest.slice(32)}`]
              }),
              `key       ${seal.key}`
            ]
          },
          {
            stack: [
              {
                svg: await QRCode.toString(sealCode(record.visit.id, seal), {
                  type: 'svg',
                  margin: 1,
                  errorCorrectionLevel: 'M'
                }),
                width: 150
              },
              { text: 'pasado verify --seal', font: 'Mono', fontSize: 7.5, color: soft, alignment: 'center' }
            ]
          }
        ]
      ]
    }
  }
}
