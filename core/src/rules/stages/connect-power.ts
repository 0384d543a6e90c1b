import type { KnownUnit } from '../../work/units/known-unit'
import { aboutUnit, holds, rule, unproven, type Home, type Subject, type Verdict } from '../rule'
import { fittingName } from '../../work/cabling/ports'
import { standing, thingsOf, type Fitting } from '../../record/record'
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
    const telephones = standing(thingsOf(home.record, 'fitting')).filter(
      ({ facts }) => facts.kind === 'network-telephone' && facts.ownPower !== true
    )
    const switches = home.units.filter(({ model }) => model?.powerBudgetW !== undefined)
    if (powered.length === 0 && switches.length === 0 && telephones.length === 0) return []
    const wrong = problemsOf(home, 'over-budget', 'over-port-limit', 'no-poe')
    if (wrong.length) return wrong.map((problem) => asVerdict(problem, home))
    const open = [...telephones.flatMap((telephone) => openOf(home, telephone)), ...powered.flatMap(unfed(home))]
    return open.length > 0 ? open : [holds('Every powered unit is fed, within budget and limits.')]
  }
})

/** What is open of a telephone that its port is to feed. */
function openOf(home: Home, fitting: Fitting): Verdict[] {
  const about = { id: fitting.id, name: fittingName(fitting) }
  // What hangs on a switch cannot be added up where one does not say what it asks for.
  if (fitting.facts.powerClass === undefined)
    return [
      unproven(
        'How much power it asks for is not recorded.',
        'Read the class off its label, or say that it has an adapter of its own.',
        { stage: 'connect', kind: 'fitting', id: fitting.id, field: 'powerClass' },
        about
      )
    ]
  return isFedByCable(home, fitting.id) ? [] : [notFed(fitting.id, about)]
}

const unfed = (home: Home) => (known: KnownUnit) =>
  isFedByCable(home, known.unit.id) ? [] : [notFed(known.unit.id, aboutUnit(known))]

const notFed = (id: string, about: Subject): Verdict =>
  unproven(
    'Nothing is recorded that gives it power.',
    'Draw its cable to a powered port, or to an injector.',
    { stage: 'connect', kind: 'cable', id: 'new', field: id },
    about
  )
