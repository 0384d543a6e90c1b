import { hasRole } from '../record/roles'
import { modelOf, type Catalogue } from '../catalogue/model'
import { planOf, roomAt } from '../work/plan/home-plan'
import { standing, thingsOf, unitName, type VisitRecord } from '../record/record'
import type { Stage } from '../record/stages'

/** Something that can hurt, where it comes up, and what to keep to. */
export interface Caution {
  id: string
  stage: Stage
  text: string
}

/** A unit higher than this is reached from a ladder, metres. */
const LADDER_M = 2

/** The cautions that this visit calls for, in the order its work meets them. All of them defer to local codes and licensed trades. */
export function cautionsOf(record: VisitRecord, catalogue: Catalogue): Caution[] {
  const { accessLine, telephone } = record.brief.facts
  const units = standing(record.units).map((unit) => ({
    unit,
    name: unitName(unit),
    model: modelOf(unit, catalogue)
  }))
  const plan = planOf(record)
  const outlets = standing(thingsOf(record, 'outlet'))
  const named = (list: readonly { name: string }[]) => list.map(({ name }) => name).join(', ')
  const high = units.filter(
    ({ unit, model }) =>
      (unit.facts.heightM ?? 0) > LADDER_M || (model?.ports.length === 1 && model.ports[0]?.powerInClass !== undefined)
  )
  const shut = units.filter(({ unit }) => unit.facts.cabinet)
  const away = units.filter(
    ({
      unit: {
        facts: { storey, x, y }
      }
    }) => storey !== undefined && x !== undefined && y !== undefined && roomAt(plan, { storey, x, y })?.building
  )
  const cautions: Caution[] = []
  const add = (when: boolean, id: string, stage: Stage, text: string) => {
    if (when) cautions.push({ id, stage, text })
  }
  add(
    accessLine === 'telephone-line' || telephone === true,
    'telephone',
    'connect',
    'A telephone line carries ringing voltage: unplug it before you touch its wires. An alarm, a pendant, a lift or a fax may hang on it: ask before you unplug anything. Wiring in the wall is for a licensed trade.'
  )
  add(
    accessLine === 'fibre',
    'fibre',
    'connect',
    'Never look into a fibre or its socket: its light is invisible and can harm the eye. Put the cap back on what you unplug.'
  )
  add(
    accessLine === 'coax',
    'coax',
    'connect',
    'The shield of the coax is part of the house’s earthing: do not cut or bridge it. If it tingles or sparks, stop and call a licensed electrician.'
  )
  add(
    units.length > 0,
    'mains',
    'connect',
    'Only plug into sockets that stand; nothing of the fixed wiring is opened. A damaged socket or adapter is not used: a licensed electrician mends it.'
  )
  add(
    units.some(({ unit }) => hasRole(unit, 'powerline-adapter')),
    'powerline',
    'place',
    'A powerline adapter goes straight into a wall socket, never into a strip, and is not covered: it grows warm.'
  )
  add(
    high.length > 0,
    'ladder',
    'place',
    `${named(high)}: stand a ladder firmly on level ground, do not reach out sideways, and have somebody hold it.`
  )
  add(
    high.length > 0 || outlets.some(({ facts }) => facts.cableTo !== undefined),
    'drilling',
    'place',
    'Before you drill: cables and pipes may be hidden, and older walls and ceilings may hold asbestos. Look at the plans, use a detector, and when in doubt do not drill.'
  )
  add(
    plan.rooms.some(({ building }) => building !== ''),
    'buildings',
    'place',
    `A cable between two buildings can carry lightning and a difference of earths${away.length ? ` (${named(away)})` : ''}: use fibre, or surge protection by a licensed electrician.`
  )
  add(
    shut.length > 0,
    'heat',
    'place',
    `${named(shut)}: a powered device in a closed cupboard grows hot. Take it out, or see to it that air moves, and let nothing lie on it.`
  )
  add(
    telephone === true,
    'power-cut',
    'handover',
    'Telephone through the modem: no call, emergency ones included, works in a power cut. The customer is told.'
  )
  return cautions
}
