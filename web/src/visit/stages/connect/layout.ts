import { type PortOwner, endKey } from '@pasado/core/work/cabling/ports'
import { equipmentOf } from '@pasado/core/record/equipment'
import type { VisitRecord } from '@pasado/core/record/record'

/** A device of the map in its place, in pixels; its ports stand along its lower edge. */
export interface PlacedOwner {
  owner: PortOwner
  x: number
  y: number
  width: number
}

export const PORT_W = 50
export const BOX_H = 92
const [GAP_X, GAP_Y, MARGIN] = [18, 54, 12]
const LEAST_W = 128

/** From the street to the rooms: what brings the line, what ends it, what shares it out, what hangs on that. */
function levelOf({ thing, id }: PortOwner, record: VisitRecord): number {
  if (thing === 'outlet') return record.outlets?.[id]?.facts.kind === 'line' ? 0 : 3
  if (thing === 'fitting') return ['splitter', 'provider-box'].includes(record.fittings?.[id]?.facts.kind ?? '') ? 0 : 3
  const { unit, stays } = equipmentOf(record, id) ?? {}
  return levels[unit?.facts.role ?? stays?.facts.kind ?? ''] ?? 3
}

const levels: Readonly<Record<string, number>> = { modem: 1, gateway: 1, router: 2, switch: 2, controller: 2 }

/** Places everything that has ports, row by row, wrapping rows that are too long. */
export function layOut(
  owners: readonly PortOwner[],
  record: VisitRecord,
  mostW: number
): { placed: PlacedOwner[]; width: number; height: number; ports: Map<string, { x: number; y: number }> } {
  const placed: PlacedOwner[] = []
  let y = MARGIN
  let width = 0
  for (const level of [0, 1, 2, 3]) {
    const row = owners.filter((owner) => owner.ports.length > 0 && levelOf(owner, record) === level)
    let x = MARGIN
    for (const owner of row) {
      const wide = Math.max(LEAST_W, owner.ports.length * PORT_W + 12)
      if (x > MARGIN && x + wide > mostW) {
        x = MARGIN
        y += BOX_H + GAP_Y
      }
      placed.push({ owner, x, y, width: wide })
      x += wide + GAP_X
      width = Math.max(width, x)
    }
    if (row.length) y += BOX_H + GAP_Y
  }
  const ports = new Map(
    placed.flatMap(({ owner, x, y: top, width: wide }) =>
      owner.ports.map(
        (port, at) =>
          [
            endKey(port.end),
            { x: x + (wide - owner.ports.length * PORT_W) / 2 + PORT_W * (at + 0.5), y: top + BOX_H - 24 }
          ] as const
      )
    )
  )
  return { placed, width: Math.max(width, 320), height: Math.max(y - GAP_Y + MARGIN + 24, 160), ports }
}
