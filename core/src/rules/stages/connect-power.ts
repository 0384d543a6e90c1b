import { aboutUnit, holds, rule, unproven } from '../rule'
import { fittingName } from '../../work/cabling/ports'
import { standing, thingsOf } from '../../record/record'
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
    // A telephone that nobody says the class of: what hangs on the switch cannot be added up.
    const unsaid = standing(thingsOf(home.record, 'fitting')).filter(
      (fitting) =>
        fitting.facts.kind === 'network-telephone' &&
        fitting.facts.powerClass === undefined &&
        fitting.facts.ownPower !== true &&
        standing(thingsOf(home.record, 'cable')).some(({ facts: { a, b } }) =>
          [a, b].some((end) => end?.id === fitting.id)
        )
    )
    const switches = home.units.filter(({ model }) => model?.powerBudgetW !== undefined)
    if (powered.length === 0 && switches.length === 0 && unsaid.length === 0) return []
    const wrong = problemsOf(home, 'over-budget', 'over-port-limit', 'no-poe')
    if (wrong.length) return wrong.map((problem) => asVerdict(problem, home))
    if (unsaid.length)
      return unsaid.map((fitting) =>
        unproven(
          'How much power it asks for is not recorded.',
          'Read the class off its label, or say that it has an adapter of its own.',
          { stage: 'connect', kind: 'fitting', id: fitting.id, field: 'powerClass' },
          { id: fitting.id, name: fittingName(fitting) }
        )
      )
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
