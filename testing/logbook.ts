import { catalogueOf, type Catalogue } from '@pasado/core/catalogue/model'
import type { Placed } from '@pasado/core/record/entry'
import type { Body, EntryKind } from '@pasado/core/record/entries/all'
import type { Author } from '@pasado/core/record/attribution'
import type { VisitRecord } from '@pasado/core/record/record'
import { fold, type Folded } from '@pasado/core/history/fold'
import { reduce } from '@pasado/core/record/reduce'
import { ofOneRule } from '@pasado/core/rules/because'
import { evaluate, type Finding } from '@pasado/core/rules/evaluate'
import type { Standard } from '@pasado/core/policy/standard'
import { firstStandard } from '@pasado/core/rules/first-standard'
import { demoModels } from '@pasado/demo/models/all'

export const someone: Author = { id: '00000000-0000-4000-8000-736f6d656f6e', name: 'Isolde Marram', role: 'technician' }
/** A node of the Ostrel family that is in none of its maker's sets. */
const singleNode = { ...demoModels.find(({ id }) => id === 'ostrel-tern')!, id: 'ostrel-fulmar', name: 'Fulmar' }
export const catalogue: Catalogue = catalogueOf([...demoModels, singleNode])

/** An id that is easy to tell in a failing test: the same letters for the same name. */
export function idOf(name: string): string {
  const hex = [...name]
    .map((letter) => letter.charCodeAt(0).toString(16))
    .join('')
    .padEnd(12, '0')
    .slice(0, 12)
  return `00000000-0000-4000-8000-${hex}`
}

/** Writes a logbook by hand: each call is one entry, a minute after the one before. */
export class Log {
  readonly entries: Placed[] = []

  write<K extends EntryKind>(kind: K, body: Body<K>, more: Partial<Placed> = {}): this {
    const seq = this.entries.length + 1
    const at = new Date(Date.UTC(2026, 0, 5, 9, seq)).toISOString()
    this.entries.push({
      id: idOf(`e${seq}`),
      visit: idOf('visit'),
      at,
      from: idOf('device'),
      base: seq - 1,
      kind,
      body,
      by: someone,
      seq,
      received: at,
      ...more
    } as Placed)
    return this
  }

  secret(
    purpose: Body<'secret.kept'>['purpose'],
    thing: 'unit' | 'network',
    id: string,
    assessed: Partial<Body<'secret.kept'>['assessed']> = {}
  ): this {
    const print = assessed.print ?? `${purpose}-${id}`
    return this.write('secret.kept', {
      ref: idOf(`s${this.entries.length}`),
      purpose,
      thing,
      id,
      origin: 'typed',
      assessed: { score: 4, bits: 80, holdsName: false, usedElsewhere: false, ...assessed, print }
    })
  }

  /** A passphrase of a network that is to be typed in later, under a reference of its own. */
  prepared(network: string, ref: string): this {
    return this.write('secret.kept', {
      ref,
      purpose: 'wifi-passphrase',
      thing: 'network',
      id: network,
      origin: 'made',
      prepared: true,
      assessed: { score: 4, bits: 90, holdsName: false, usedElsewhere: false, print: `prepared-${network}` }
    })
  }

  record(): VisitRecord {
    return reduce(this.entries)
  }

  folded(): Folded {
    return fold(this.entries)
  }

  /** Findings of one rule, by a standard that has no other. */
  judge(rule: string, standard: Standard = firstStandard): Finding[] {
    return evaluate(this.folded(), catalogue, ofOneRule(rule, standard))
  }
}

export const router = idOf('router')
export const node = idOf('node')
export const home = idOf('home')
export const network = idOf('network')
export const box = idOf('box')
export const study = idOf('mroom')
export const ownAdapter = { adapterPlug: 'island three-pin', adapterVolts: 12, adapterAmps: 2 }

/** A visit that was just opened, at a home on coax. */
export function opened(brief: Record<string, unknown> = {}): Log {
  return new Log().write('visit.opened', {
    home: idOf('house'),
    customer: idOf('customer'),
    technician: { id: someone.id, name: someone.name },
    standard: { id: 'house', version: 1 },
    startedFrom: null,
    brief: {
      country: 'XS',
      customerName: 'Cressa Oakum',
      street: '6 Trawl Street',
      town: 'Ness Skerrow',
      phone: '555-0101',
      secondContact: 'Neighbour',
      accessLine: 'coax',
      speedDownMbps: 300,
      providerSettings: 'automatic',
      ...brief
    }
  })
}

/** Whoever stood at a unit’s place saw that it is right, of a member also how it hangs on the router. */
export function seenAtItsPlace(log: Log, unit: string, isMember = true): void {
  for (const rule of ['place-clear', 'place-outlet']) log.write('rule.answered', { rule, subject: unit, answer: 'yes' })
  if (!isMember) return
  for (const rule of ['place-hops', 'place-spacing', 'place-floors', 'place-outbuilding'])
    log.write('rule.answered', { rule, subject: unit, answer: 'yes' })
}

/** A visit with an Ostrel router and node, all of it as it should be. */
export function complete(): Log {
  const log = opened()
    .write('box.set', { id: box, set: { model: 'ostrel-heron', modelVersion: 1, kit: 'trio' } })
    .write('items.checked', {
      box,
      items: ['Heron router', 'Tern node', 'power adapter 12 V 2 A', 'network cable 1 m', 'start card'],
      state: 'present'
    })
    .write('unit.set', {
      id: router,
      set: {
        box,
        ...ownAdapter,
        name: 'Hall router',
        model: 'ostrel-heron',
        modelVersion: 1,
        role: 'router',
        serial: 'HE1-1',
        mac: '00:00:5e:00:53:01',
        place: 'hall',
        heightM: 1.2,
        method: 'app',
        needsReady: ['app-latest', 'customer-account', 'bluetooth', 'location'],
        firmwareBefore: '2.8.1',
        firmwareAfter: '3.1.0',
        updates: 'automatic',
        localAdminOnly: true,
        remoteAdmin: 'off',
        accountOwner: 'customer',
        technicianRemoved: true,
        autoChannels: true
      }
    })
    .write('unit.set', {
      id: node,
      set: {
        box,
        ...ownAdapter,
        name: 'Study node',
        model: 'ostrel-tern',
        modelVersion: 1,
        role: 'node',
        serial: 'TE1-2',
        mac: '00:00:5e:00:53:02',
        place: 'study',
        heightM: 1.1,
        method: 'push-button',
        firmwareBefore: '2.8.1',
        firmwareAfter: '3.1.0',
        updates: 'automatic',
        localAdminOnly: true,
        remoteAdmin: 'off',
        accountOwner: 'customer',
        technicianRemoved: true,
        autoChannels: true,
        pushButton: 'off'
      }
    })
  for (const unit of [router, node]) log.secret('setup-code', 'unit', unit).secret('admin-password', 'unit', unit)
  log.secret('label-key', 'unit', router)
  for (const unit of [router, node]) seenAtItsPlace(log, unit, unit === node)
  for (const unit of [router, node]) {
    log
      .write('lamp.seen', { unit, lamps: [{ lamp: 'status', colour: 'blue', pattern: 'blink' }] })
      .write('lamp.seen', { unit, lamps: [{ lamp: 'status', colour: 'white', pattern: 'solid' }] })
  }
  for (const prompt of ['usage', 'crash', 'cloud', 'location', 'mail'])
    log.write('prompt.answered', { unit: router, prompt, answer: 'no', by: 'customer' })
  return log
    .write('segment.set', {
      id: home,
      set: { name: 'Home', use: 'home', cidr: '192.168.1.0/24', gateway: '192.168.1.1' }
    })
    .write('pool.set', {
      id: idOf('pool'),
      set: { segment: home, unit: router, from: '192.168.1.100', to: '192.168.1.199' }
    })
    .write('host.set', { id: idOf('hr'), set: { unit: router, segment: home, address: '192.168.1.1' } })
    .write('host.set', { id: idOf('hn'), set: { unit: node, segment: home, address: '192.168.1.20' } })
    .write('network.set', {
      id: network,
      set: { ssid: 'Razorbill', use: 'main', bands: ['2.4', '5'], security: 'wpa2-wpa3', segment: home }
    })
    .secret('wifi-passphrase', 'network', network)
    .write('rule.answered', { rule: 'addr-reachable', subject: idOf('hr'), answer: 'yes' })
    .write('rule.answered', { rule: 'addr-reachable', subject: idOf('hn'), answer: 'yes' })
    .write('rule.answered', { rule: 'addr-applied', answer: 'yes' })
    .write('fitting.set', { id: idOf('pbox'), set: { kind: 'provider-box' } })
    .write('cable.set', {
      id: idOf('wan'),
      set: {
        a: { thing: 'unit', id: router, port: 'internet' },
        b: { thing: 'fitting', id: idOf('pbox'), port: 'lan' },
        kind: 'network',
        category: 'cat5e',
        lengthM: 1,
        linkMbps: 2500
      }
    })
    .write('pairing.pressed', { unit: node, which: 'first', on: router })
    .write('pairing.pressed', { unit: node, which: 'second', on: node })
    .write('unit.event', { unit: router, what: 'tested-good' })
    .write('unit.event', { unit: node, what: 'tested-good' })
    .write('measurement.set', {
      id: idOf('src'),
      set: { at: 'source', runs: [{ downMbps: 302, upMbps: 51, idleMs: 9 }], by: 'laptop', how: 'typed' }
    })
    .write('room.set', { id: study, set: { name: 'Study', listed: true } })
    .write('measurement.set', {
      id: idOf('mst'),
      set: {
        at: 'room',
        room: study,
        unit: node,
        band: '5',
        dbm: -58,
        runs: [{ downMbps: 210, upMbps: 48, idleMs: 14 }],
        by: 'phone',
        how: 'typed'
      }
    })
    .write('measurement.set', {
      id: idOf('mp1'),
      set: { at: 'port', unit: router, runs: [{ downMbps: 300 }], by: 'laptop', how: 'typed' }
    })
    .write('measurement.set', {
      id: idOf('mp2'),
      set: { at: 'port', unit: node, runs: [{ downMbps: 280 }], by: 'laptop', how: 'typed' }
    })
    .write('path.seen', { unit: node, before: 0, after: 1, address: '192.168.1.103', server: router })
    .write('rule.answered', { rule: 'prove-names-gone', subject: router, answer: 'yes' })
    .write('check.booked', { id: idOf('check'), from: '2026-01-06T09:00:00Z', to: '2026-01-06T17:00:00Z' })
}

/** The same with a node that its maker does not sell together with the router: one finding at level should. */
export const mixed = (): Log => complete().write('unit.set', { id: node, set: { model: 'ostrel-fulmar' } })
