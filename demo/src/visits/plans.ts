import type { Facts } from '@pasado/core/record/facts'
import type { VisitScript } from '../visit-script'

type RoomLine = [name: string, x: number, y: number, widthM: number, depthM: number, more?: Facts<'room'>]

/** A storey with its rooms, drawn as a technician would. */
function storey(script: VisitScript, name: string, set: Facts<'storey'>, rooms: readonly RoomLine[]): string {
  const id = script.id('storey', name)
  script.write('storey.set', { id, set: { name, ...set } })
  for (const [room, x, y, widthM, depthM, more] of rooms)
    script.write('room.set', {
      id: script.id('room', `${name} ${room}`),
      set: { name: room, storey: id, x, y, widthM, depthM, listed: true, ...more }
    })
  return id
}

type OutletLine = [x: number, y: number, more?: Facts<'outlet'>]

function outlets(script: VisitScript, storeyId: string, lines: readonly OutletLine[]): void {
  lines.forEach(([x, y, more], at) =>
    script.write('outlet.set', {
      id: script.id('outlet', `${storeyId} ${at}`),
      set: { storey: storeyId, kind: 'mains', x, y, ...more }
    })
  )
}

/** The lighthouse keeper's cottage: granite all round, a loft under the roof, the lamp room at the end of a passage. */
export function lighthousePlan(script: VisitScript): VisitScript {
  script.brief({ outerMaterial: 'granite', outerMm: 650, innerMaterial: 'brick', innerMm: 150 })
  const ground = storey(script, 'Ground floor', { floorM: 0, heightM: 2.4, ceilingMaterial: 'wood', ceilingMm: 180 }, [
    ['Hall', 0, 3.4, 2.6, 3.2],
    ['Kitchen', 2.6, 3.4, 4.2, 3.2],
    ['Parlour', 0, 0, 4.6, 3.4],
    ['Study', 4.6, 0, 2.2, 3.4],
    ['Passage', 6.8, 3.9, 4.2, 1.4, { listed: false }],
    ['Lamp room', 11, 2.6, 3.6, 3.8, { complained: true }]
  ])
  outlets(script, ground, [
    [0.3, 4.2, { kind: 'line' }],
    [0.4, 5.8],
    [2.9, 6.3],
    [6.5, 6.2, { circuit: 'B' }],
    [0.3, 0.6],
    [4.3, 3.1],
    [6.5, 0.4],
    [11.3, 4.6, { circuit: 'B' }],
    [14.3, 2.9, { circuit: 'B' }]
  ])
  script.write('opening.set', {
    id: script.id('opening', 'hall door'),
    set: { storey: ground, kind: 'door', x1: 0, y1: 4.6, x2: 0, y2: 5.5 }
  })
  script.write('opening.set', {
    id: script.id('opening', 'kitchen door'),
    set: { storey: ground, kind: 'door', x1: 2.6, y1: 4.4, x2: 2.6, y2: 5.2 }
  })
  script.write('opening.set', {
    id: script.id('opening', 'passage door'),
    set: { storey: ground, kind: 'door', x1: 6.8, y1: 4.2, x2: 6.8, y2: 5 }
  })
  script.write('opening.set', {
    id: script.id('opening', 'parlour window'),
    set: { storey: ground, kind: 'window', x1: 1.4, y1: 0, x2: 2.8, y2: 0 }
  })
  script.write('trouble.set', {
    id: script.id('trouble', 'range'),
    set: { storey: ground, kind: 'metal-appliance', x: 6.2, y: 4.4 }
  })
  script.write('trouble.set', {
    id: script.id('trouble', 'tank'),
    set: { storey: ground, kind: 'fish-tank', x: 1, y: 2.9 }
  })
  const loft = storey(script, 'Loft', { floorM: 2.6, heightM: 2.2 }, [
    ['Bedroom', 0, 0, 4.6, 6.6],
    ['Bath', 4.6, 0, 2.2, 2.6],
    ['Loft room', 4.6, 2.6, 2.2, 4, { complained: true }]
  ])
  outlets(script, loft, [
    [0.4, 3.2],
    [4.3, 6.2],
    [6.5, 3],
    [6.4, 6.2]
  ])
  for (const [name, at, x, y] of [
    ['Gateway', ground, 0.5, 4.2],
    ['Hall point', ground, 2.2, 5.9],
    ['Loft point', loft, 6.3, 6],
    ['Lamp-room point', ground, 11.5, 4.6]
  ] as const)
    script.setUnit(name, { storey: at, x, y })
  return script
}

/** The ferry captain's terrace: three narrow storeys and a cellar, brick between the houses, wood between the floors. */
export function terracePlan(script: VisitScript): VisitScript {
  script.brief({ outerMaterial: 'brick', outerMm: 360, innerMaterial: 'brick', innerMm: 115 })
  const cellar = storey(script, 'Cellar', { floorM: -2.5, heightM: 2.1, ceilingMaterial: 'concrete', ceilingMm: 200 }, [
    ['Wine cellar', 0, 0, 4.4, 4.2, { complained: true }],
    ['Coal hole', 0, 4.2, 4.4, 2.6, { listed: false }]
  ])
  const ground = storey(script, 'Ground floor', { floorM: 0, heightM: 2.7, ceilingMaterial: 'wood', ceilingMm: 220 }, [
    ['Hall', 0, 0, 1.6, 6],
    ['Parlour', 1.6, 0, 3.2, 4.4],
    ['Dining room', 1.6, 4.4, 3.2, 3.4],
    ['Kitchen', 0, 7.8, 4.8, 3],
    ['Back hall', 0, 6, 1.6, 1.8, { listed: false }]
  ])
  const first = storey(script, 'First floor', { floorM: 3, heightM: 2.6, ceilingMaterial: 'wood', ceilingMm: 220 }, [
    ['Landing', 0, 0, 1.6, 7.8],
    ['Front bedroom', 1.6, 0, 3.2, 4.4],
    ['Back bedroom', 1.6, 4.4, 3.2, 3.4],
    ['Bath', 0, 7.8, 4.8, 2.2]
  ])
  const attic = storey(script, 'Attic', { floorM: 5.8, heightM: 2.3 }, [
    ['Attic study', 0, 0, 4.8, 5],
    ['Box room', 0, 5, 4.8, 2.8, { listed: false }]
  ])
  outlets(script, ground, [
    [0.3, 1, { kind: 'line' }],
    [0.3, 1.7],
    [4.6, 3.6],
    [1.9, 4.1],
    [4.5, 0.5],
    [4.5, 7.4],
    [0.4, 10.4],
    [4.5, 10.4],
    [4.6, 4.2, { kind: 'network' }]
  ])
  outlets(script, first, [
    [0.3, 4],
    [4.5, 4.1],
    [1.9, 7.5],
    [4.4, 0.4]
  ])
  outlets(script, attic, [
    [0.4, 0.5],
    [4.4, 4.6]
  ])
  outlets(script, cellar, [
    [0.4, 3.8],
    [4.1, 1.2],
    [4, 0.5, { kind: 'network', cableTo: script.id('outlet', `${ground} 8`) }]
  ])
  for (const [at, x1, y1, x2, y2] of [
    [ground, 0.2, 2.6, 1.2, 5.4],
    [first, 0.2, 3.6, 1.2, 6.4],
    [cellar, 3.2, 3.6, 4.2, 6.4]
  ] as const)
    script.write('opening.set', {
      id: script.id('opening', `stairs ${at}`),
      set: { storey: at, kind: 'stairs', x1, y1, x2, y2 }
    })
  script.write('trouble.set', {
    id: script.id('trouble', 'boiler'),
    set: { storey: ground, kind: 'boiler', x: 4.3, y: 8.3 }
  })
  for (const name of ['Landing node', 'Attic node'])
    script.setUnit(name, { floorsReason: 'The staircase is listed; no cable may be laid in it.' })
  for (const [name, at, x, y] of [
    ['Gateway', ground, 0.5, 1.1],
    ['Router', ground, 4.4, 3.9],
    ['Landing node', first, 0.5, 4.1],
    ['Attic node', attic, 4.2, 4.4]
  ] as const)
    script.setUnit(name, { storey: at, x, y })
  return script
}

/** The fourth node of the terrace, in the cellar, by cable. */
export function cellarNode(script: VisitScript): VisitScript {
  return script.setUnit('Cellar node', { cabled: true, storey: script.id('storey', 'Cellar'), x: 3.8, y: 0.7 })
}
