import { choiceNames, choices } from '../record/answers'
import { anyThingsOf, standing, tableOf, type VisitRecord } from '../record/record'
import { storedKinds, things } from '../record/things/all'
import type { Finding } from '../rules/evaluate'
import { sameJson } from '../values/canonical'
import { judgeRooms, type RoomVerdict } from '../work/prove/rooms'
import type { Change, OutcomeChange, Revision, RoomChange, RoomFigures, ThingChanges } from './change'

/** Kinds that are drawn: what counts is that they are others, not by how many metres. */
const drawn = storedKinds.flatMap((kind) => {
  const { compared } = things[kind]
  return typeof compared === 'object' && 'drawn' in compared ? [{ kind, plural: compared.drawn }] : []
})
export function choiceChanges(before: VisitRecord, after: VisitRecord): ThingChanges[] {
  const changes = choiceNames.flatMap((choice): Change[] => {
    const [a, b] = [before.choices[choice], after.choices[choice]]
    return a?.answer === b?.answer
      ? []
      : [
          {
            field: choice,
            label: choices[choice].toLowerCase(),
            before: a?.answer ?? null,
            after: b?.answer ?? null,
            by: b ? { name: b.by.name, at: b.at } : null,
            why: []
          }
        ]
  })
  const [had, has] = [before.custody, after.custody]
  if (had?.custody !== has?.custody)
    changes.push({
      field: 'custody',
      label: 'who keeps the passwords',
      before: had?.custody.replaceAll('-', ' ') ?? null,
      after: has?.custody.replaceAll('-', ' ') ?? null,
      by: has ? { name: has.by.name, at: has.at } : null,
      why: []
    })
  return changes.length
    ? [{ kind: 'choices', id: 'choices', name: 'What the customer chose', is: 'changed', changes, why: [] }]
    : []
}

export function planChanges(before: VisitRecord, after: VisitRecord): ThingChanges[] {
  const changes = drawn.flatMap(({ kind, plural }): Change[] => {
    const [old, now] = [standing(anyThingsOf(before, kind)), standing(anyThingsOf(after, kind))]
    const others = now.filter((thing) => {
      const was = old.find(({ id }) => id === thing.id)
      return !was || !sameJson(was.facts, thing.facts)
    })
    return others.length === 0 && old.length === now.length
      ? []
      : [
          {
            field: tableOf[kind],
            label: plural,
            before: String(old.length),
            after: `${now.length}${others.length ? `, ${others.length} new or changed` : ''}`,
            by: null,
            why: []
          }
        ]
  })
  return changes.length ? [{ kind: 'plan', id: 'plan', name: 'The drawn plan', is: 'changed', changes, why: [] }] : []
}

export function outcomeChanges(was: readonly Finding[], is: readonly Finding[]): OutcomeChange[] {
  const key = ({ rule, subject }: Finding) => `${rule}\n${subject?.id ?? ''}`
  const old = new Map(was.map((finding) => [key(finding), finding]))
  return is.flatMap((finding): OutcomeChange[] => {
    const before = old.get(key(finding))
    return before && before.outcome !== finding.outcome
      ? [
          {
            rule: finding.rule,
            name: finding.name,
            subject: finding.subject?.name ?? null,
            before: before.outcome,
            after: finding.outcome,
            message: finding.granted?.reason ?? finding.evidence
          }
        ]
      : []
  })
}

export function roomChanges(before: Revision, after: Revision): RoomChange[] {
  const figures = (verdict: RoomVerdict | undefined): RoomFigures | null => {
    const best = verdict?.bands[0]
    return best
      ? { dbm: best.measurement.facts.dbm ?? null, downMbps: best.down?.median ?? null, outcome: verdict.outcome }
      : null
  }
  const [old, now] = [before, after].map((revision) =>
    judgeRooms(revision, revision.catalogue, revision.standard.policy)
  ) as [RoomVerdict[], RoomVerdict[]]
  const of = (rooms: RoomVerdict[], id: string) => rooms.find(({ room }) => room.id === id)
  return [...new Set([...now, ...old].map(({ room }) => room.id))].flatMap((id): RoomChange[] => {
    const [a, b] = [figures(of(old, id)), figures(of(now, id))]
    return sameJson(a, b)
      ? []
      : [{ name: (of(now, id) ?? of(old, id))!.room.facts.name ?? 'Room', before: a, after: b }]
  })
}
