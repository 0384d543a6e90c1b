import { v7 as uuidv7 } from 'uuid'
import { packDigest, signedDigest } from '@pasado/core/record/seal'
import type { Body, EntryKind } from '@pasado/core/record/entries/all'
import { demoFerries, demoPassword, demoPeople, demoTravel } from '@pasado/demo/company'
import { demoModels } from '@pasado/demo/models/all'
import type { HouseDefinition } from '@pasado/core/house/definition'
import type { ScriptedVisit, Step } from '@pasado/demo/visit-script'
import { firstStandard } from '@pasado/core/rules/first-standard'
import { checkRooms } from '@pasado/core/work/prove/settled'
import { insertResult } from '@pasado/server/db/checks'
import { readVisit } from '@pasado/server/logbook/read'
import { addModel, addStandard } from '@pasado/server/db/catalogue'
import { insertHouse } from '@pasado/server/db/houses'
import { setTravel, setWindows } from '@pasado/server/db/ways'
import { addPerson } from '@pasado/server/db/people'
import { hashPassword } from '@pasado/server/http/session'
import { openVisit, sealVisit } from '@pasado/server/logbook/visits'
import { keepSecret } from '@pasado/server/logbook/secrets'
import type { Services } from '@pasado/server/services'

const MINUTE = 60_000

/** Adds the demo company: its people, its standard and its catalogue. */
export async function loadCompany(services: Services, now: Date): Promise<void> {
  await loadStandards(services, now)
  await loadPeople(services, now)
}

/** Adds the demo company's standard and catalogue, and the ways between its towns. */
export async function loadStandards(services: Services, now: Date): Promise<void> {
  await addStandard(services.db, firstStandard)
  for (const model of demoModels) await addModel(services.db, model)
  for (const { a, b, minutes } of demoTravel) await setTravel(services.db, { a, b }, minutes, demoPeople[0]!.id, now)
  for (const [town, windows] of Object.entries(demoFerries)) await setWindows(services.db, town, windows)
}

/** Adds the demo company's people. */
export async function loadPeople(services: Services, now: Date): Promise<void> {
  const hash = await hashPassword(demoPassword)
  for (const { id, login, name, role } of demoPeople) await addPerson(services.db, { id, login, name, role }, hash, now)
}

/** Plays scripted visits into the database, dated relative to the day of loading. */
export async function loadVisits(services: Services, visits: readonly ScriptedVisit[], today: Date): Promise<void> {
  const midnight = Date.UTC(today.getUTCFullYear(), today.getUTCMonth(), today.getUTCDate())
  for (const visit of visits) {
    const opened = midnight + visit.openedAtMin * MINUTE
    await openVisit(
      services.logbook,
      {
        id: visit.id,
        home: visit.home,
        customer: visit.customer,
        technician: { id: visit.technician.id, name: visit.technician.name },
        brief: { ...visit.brief, plannedAt: new Date(midnight + visit.plannedAtMin * MINUTE).toISOString() }
      },
      visit.openedBy,
      new Date(opened)
    )
    for (const batch of batches(visit.steps))
      await play(
        services,
        visit.id,
        batch,
        (atMin) => new Date(Math.min(opened + atMin * MINUTE, Date.now())),
        midnight
      )
    for (const step of visit.steps)
      if (step.does === 'check' && midnight + step.toMin * MINUTE < Date.now())
        await lookedAgain(services, visit.id, step, new Date(midnight + (step.fromMin + 40) * MINUTE))
  }
}

/** A check that is over was done in its time: every room a little different from what it was. */
async function lookedAgain(
  { db, logbook }: Services,
  visit: string,
  { id, by }: Extract<Step, { does: 'check' }>,
  at: Date
): Promise<void> {
  const { record, history } = await readVisit(logbook, visit)
  const { rooms } = checkRooms(
    { record, history },
    await logbook.states.catalogueFor(db, record),
    await logbook.states.standardOf(db, record).then(({ policy }) => policy)
  )
  const now = rooms.flatMap(({ room, dbm, downMbps, idleMs }, index) =>
    dbm === null || downMbps === null
      ? []
      : [
          {
            room,
            dbm: dbm + (index % 3) - 1,
            run: {
              downMbps: Math.round(downMbps * (0.94 + (index % 4) * 0.03)),
              ...(idleMs === null ? {} : { idleMs: idleMs + 1 })
            }
          }
        ]
  )
  if (now.length) await insertResult(db, { check: id, visit, by, at, result: JSON.stringify({ rooms: now }) })
}

/** Entries that follow each other are written together; everything else on its own. */
function batches(steps: readonly Step[]): Step[][] {
  const found: Step[][] = []
  for (const step of steps) {
    const last = found.at(-1)
    if (step.does === 'entry' && last?.[0]!.does === 'entry') last.push(step)
    else found.push([step])
  }
  return found
}

async function play(
  { logbook }: Services,
  visit: string,
  batch: readonly Step[],
  timeOf: (atMin: number) => Date,
  midnight: number
): Promise<void> {
  const first = batch[0]!
  const now = timeOf(first.atMin)
  switch (first.does) {
    case 'entry':
      return logbook.write(visit, now, async (open) => {
        for (const step of batch) {
          if (step.does !== 'entry') continue
          open.now = timeOf(step.atMin)
          open.write(step.kind, step.body as Body<EntryKind>, step.by)
        }
      })
    case 'secret':
      await keepSecret(
        logbook,
        visit,
        {
          ref: uuidv7(),
          purpose: first.purpose,
          thing: first.thing,
          id: first.id,
          origin: 'typed',
          value: first.value
        },
        first.by,
        now
      )
      return
    case 'check':
      return logbook.write(
        visit,
        now,
        async (open) =>
          void open.write(
            'check.booked',
            {
              id: first.id,
              from: new Date(midnight + first.fromMin * MINUTE).toISOString(),
              to: new Date(midnight + first.toMin * MINUTE).toISOString()
            },
            first.by
          )
      )
    case 'pack':
      return logbook.write(
        visit,
        now,
        async (open) => void open.write('pack.made', { digest: packDigest(open.state.record) }, first.by)
      )
    case 'sign':
      return logbook.write(visit, now, async (open) => {
        const digest = signedDigest(open.state.record)
        const customer = open.state.record.brief.facts.customerName ?? 'Customer'
        open.write('signature.given', { who: 'customer', name: customer, strokes: scrawl(customer), digest }, first.by)
        open.write(
          'signature.given',
          { who: 'technician', name: first.by.name, strokes: scrawl(first.by.name), digest },
          first.by
        )
      })
    case 'seal':
      return sealVisit(logbook, visit, { digest: signedDigest((await readNow(logbook, visit)).record) }, first.by, now)
  }
}

async function readNow(logbook: Services['logbook'], visit: string) {
  return logbook.write(visit, new Date(), async (open) => open.state)
}

/** Strokes that stand for a signature: a wave with a loop for each letter of the name. */
function scrawl(name: string): string {
  const points = [...name].map(
    (letter, index) => `L${40 + index * 26} ${100 + ((letter.charCodeAt(0) * 13) % 70) - 35}`
  )
  return `M20 110 ${points.join(' ')}`
}

/** Adds the houses to practise on. */
export async function loadHouses(services: Services, houses: readonly HouseDefinition[], now: Date): Promise<void> {
  for (const [index, definition] of houses.entries())
    await insertHouse(services.db, {
      id: uuidv7(),
      definition,
      template: true,
      by: demoPeople[0]!.id,
      at: new Date(now.getTime() - index * 1000)
    })
}
