import { roles, type Model } from '@pasado/core/catalogue/model'
import { standing, unitName, type Unit } from '@pasado/core/record/record'
import { isMeshMember } from '@pasado/core/work/units/known-unit'
import { ChoiceFact, SelectFact } from '../../fields/FactField'
import { useVisit } from '../../session/visit-state'
import { alsoRoles } from '@pasado/core/record/roles'
import { modelOf } from '@pasado/core/catalogue/model'
import { Notice } from '../../../ui/Notice'

/** What the unit is here: what its model can be is offered, what it cannot is told with why. */
export function RoleChoice({ unit, model }: { unit: Unit; model: Model }) {
  const units = standing(useVisit((state) => state.record.units))
  const catalogue = useVisit((state) => state.catalogue)
  const others = units.filter(({ id }) => id !== unit.id)
  const stranger = isMeshMember({ model, unit })
    ? others.find((other) => {
        const known = modelOf(other, catalogue)
        return known && isMeshMember({ model: known, unit: other }) && known.family !== model.family
      })
    : undefined
  const lead = unit.facts.role === 'router' ? others.find(({ facts }) => facts.role === 'router') : undefined
  const { role, alsoRole } = unit.facts
  // What it was said to be stays here to be taken away, whatever else was said since.
  const besides = model.roles.filter(
    (other) => other === alsoRole || (role !== undefined && alsoRoles[role]?.includes(other))
  )
  const cannot = roles.filter((role) => !model.roles.includes(role))
  return (
    <div>
      <ChoiceFact
        kind="unit"
        id={unit.id}
        field="role"
        label="Role here"
        options={model.roles.map((value) => ({ value, label: value.replace('-', ' ') }))}
        hint={
          model.roles.length === 1
            ? `The only one a ${model.name} can take.`
            : `Not: ${cannot.map((role) => role.replace('-', ' ')).join(', ')}.`
        }
      />
      {besides.length > 0 && (
        <SelectFact
          kind="unit"
          id={unit.id}
          field="alsoRole"
          label="And as well"
          none="nothing else"
          options={besides.map((value) => ({ value, label: value.replace('-', ' ') }))}
        />
      )}
      {stranger && <Warning>{unitName(stranger)} is of another mesh family: the two will not join.</Warning>}
      {lead && (
        <Warning>
          {unitName(lead)} is the router already. A second one makes a second network, unless it is made an access
          point.
        </Warning>
      )}
    </div>
  )
}

function Warning({ children }: { children: React.ReactNode }) {
  return (
    <Notice role="alert" as="p" edge="ink" small className="mt-1 font-bold">
      {children}
    </Notice>
  )
}
