import { aboutUnit, holds, rule, unproven } from '../rule'
import { asVerdict, isFedByCable, problemsOf } from './cables-of-home'

export const cablePower = rule({
  id: 'cable-power',
  name: 'Powered ports',
  stage: 'connect',
  level: 'must',
  minutes: 5,
  needs: ['model'],
  statement: "Powered ports: within the switch's budget and each port's limit.",
  judge: (home) => {
    const powered = home.units.filter(
      ({ model, unit }) =>
        model?.power === null &&
        model.ports.some(({ powerInClass }) => powerInClass !== undefined) &&
        unit.removedSeq === null
    )
    const switches = home.units.filter(({ model }) => model?.powerBudgetW !== undefined)
    if (powered.length === 0 && switches.length === 0) return []
    const wrong = problemsOf(home, 'over-budget', 'over-port-limit', 'no-poe')
    if (wrong.length) return wrong.map((problem) => asVerdict(problem, home))
    const unfed = powered.filter(({ unit }) => !isFedByCable(home, unit.id))
    if (unfed.length)
      return unfed.map((known) =>
        unproven(
          'Nothing is recorded that gives it power.',
          'Draw its cable to a powered port, or to an injector.',
          { stage: 'connect', kind: 'cable', id: 'new', field: known.unit.id },
          aboutUnit(known)
        )
      )
    return [holds('Every powered unit is fed, within budget and limits.')]
  }
})
