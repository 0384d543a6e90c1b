import { modelOf, type Catalogue } from '../../catalogue/model'
import { equipmentOf } from '../../record/equipment'
import { standing, thingsOf, type VisitRecord } from '../../record/record'
import type { CableProblem, KnownCable } from './known-cable'
import { beyond } from './far-end'
import type { Port } from './ports'
import { poeBudget } from './poe-budget'

/** Powered ports, switch by switch. */
export function powerProblems(
  record: VisitRecord,
  catalogue: Catalogue,
  cables: readonly KnownCable[]
): CableProblem[] {
  return standing(record.units).flatMap((unit): CableProblem[] => {
    const model = modelOf(unit, catalogue)
    if (!model?.powerBudgetW) return []
    const hasAdapter = ({ end: { id } }: Port) => {
      const fitting = thingsOf(record, 'fitting')[id]
      if (fitting) return fitting.facts.ownPower === true
      const fed = equipmentOf(record, id)
      return fed !== null && (modelOf(fed.thing, catalogue)?.power ?? null) !== null
    }
    const loads = cables.flatMap(({ cable, a, b }) => {
      const mine = [a, b].find((end) => end?.end.id === unit.id) ?? null
      const near = mine === a ? b : a
      const other = near && beyond(record, near, cables)
      const index = mine ? model.ports.findIndex(({ id }) => id === mine.end.port) : -1
      const gives = (model.ports[index]?.powerOutW ?? 0) > 0
      // What has an adapter of its own needs no power from its port, and takes it where there is some.
      return mine && other && other.powerInClass !== null && index >= 0 && (gives || !hasAdapter(other))
        ? [{ cable, other, port: index + 1 }]
        : []
    })
    const { findings, reservedW } = poeBudget({
      budgetW: model.powerBudgetW,
      ports: model.ports.map(({ powerOutW }, index) => {
        const load = loads.find(({ port }) => port === index + 1)
        return {
          port: index + 1,
          limitW: powerOutW ?? 0,
          ...(load ? { load: { device: load.other.owner, class: load.other.powerInClass! } } : {})
        }
      })
    })
    return findings.flatMap(({ code, port }): CableProblem[] => {
      const load = loads.find((candidate) => candidate.port === port) ?? loads.at(-1)
      // What a unit draws is recorded nowhere: only its class counts.
      if (!load || code === 'draw-above-class') return []
      const name = unit.facts.name ?? model.name
      const printed = model.ports[load.port - 1]!.name
      const problem = {
        'over-budget': {
          message: `${name} reserves ${reservedW} W for what hangs on it; it can give ${model.powerBudgetW} W in all.`,
          remedy: 'Take one off, or feed it by an injector.'
        },
        'over-port-limit': {
          message: `${load.other.owner} asks for more than port ${printed} of ${name} may give.`,
          remedy: 'Another port, or an injector.'
        },
        'no-poe': {
          message: `Port ${printed} of ${name} gives no power, and ${load.other.owner} needs it.`,
          remedy: 'Lead it to a powered port.'
        }
      }[code]
      return [{ code, ...problem, cable: load.cable.id, unit: unit.id, outcome: 'breaks' }]
    })
  })
}
