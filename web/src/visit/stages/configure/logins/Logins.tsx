import { modelOf } from '@pasado/core/catalogue/model'
import { standing, unitName, type Unit } from '@pasado/core/record/record'
import { canPair } from '@pasado/core/work/units/run-as-one'
import { AnsweredOnce } from '../../../frame/AnsweredOnce'
import { ChoiceFact, TextFact, YesNoFact } from '../../../fields/FactField'
import { SecretFact } from '../../../fields/SecretFact'
import { useVisit } from '../../../session/visit-state'

const onOff = [
  { value: 'off', label: 'off' },
  { value: 'on', label: 'on' }
] as const

/** What is answered once for all that are run as one. */
const answeredFields = ['localAdminOnly', 'remoteAdmin', 'accountOwner', 'technicianRemoved', 'pushButton'] as const

/** The unit's own logins and what is open on it; for a router made an access point, what must be off. */
export function Logins() {
  const { secrets } = useVisit((state) => state.record)
  const hasOwn = ({ id, facts }: Unit) =>
    answeredFields.some((field) => facts[field] !== undefined) ||
    Object.values(secrets).some(
      ({ thing, id: of, purpose }) => thing === 'unit' && of === id && purpose === 'admin-password'
    )
  const units = standing(useVisit((state) => state.record.units))
  const catalogue = useVisit((state) => state.catalogue)
  if (units.length === 0) return <p>No unit yet: add them under Kit.</p>
  return (
    <ul className="flex flex-col gap-5">
      {units.map((unit) => {
        const model = modelOf(unit, catalogue)
        const field = { kind: 'unit', id: unit.id } as const
        const account = model?.methods.some(({ needs }) => needs.includes('customer-account'))
        const converted = unit.facts.role === 'access-point' && model?.roles.includes('router')
        return (
          <li key={unit.id} className="paper p-4" aria-label={`Logins of ${unitName(unit)}`}>
            <h3>
              {unitName(unit)}{' '}
              <span className="fine font-normal">
                {model?.maker} {model?.name}
              </span>
            </h3>
            <AnsweredOnce unit={unit} differs={hasOwn(unit)}>
              <div className="mt-2 grid gap-x-6 gap-y-3 xl:grid-cols-2">
                <SecretFact
                  purpose="admin-password"
                  thing="unit"
                  id={unit.id}
                  label={`Admin password of ${unitName(unit)}`}
                  canMake
                />
                <div className="flex flex-wrap gap-x-6 gap-y-3">
                  <TextFact {...field} field="adminName" label="Local administrator" exact />
                  <YesNoFact {...field} field="localAdminOnly" label="Admin from inside only" />
                  <ChoiceFact
                    {...field}
                    field="remoteAdmin"
                    label="Remote administration"
                    options={[
                      { value: 'off', label: 'off' },
                      { value: 'agreed', label: 'agreed' },
                      { value: 'on', label: 'on' }
                    ]}
                  />
                  {account && (
                    <ChoiceFact
                      {...field}
                      field="accountOwner"
                      label="The maker’s account is"
                      options={[
                        { value: 'customer', label: 'the customer’s' },
                        { value: 'none', label: 'not used' },
                        { value: 'technician', label: 'mine' }
                      ]}
                    />
                  )}
                  {account && <YesNoFact {...field} field="technicianRemoved" label="Our accounts taken off" />}
                  {model && canPair(model) && (
                    <ChoiceFact
                      {...field}
                      field="pushButton"
                      label="Pairing button"
                      options={[
                        { value: 'off', label: 'off' },
                        { value: 'asked-for', label: 'on, asked for' },
                        { value: 'on', label: 'on' }
                      ]}
                    />
                  )}
                </div>
                {model?.recoveryQuestions && (
                  <div className="flex flex-wrap gap-x-6 gap-y-3 xl:col-span-2">
                    <ChoiceFact
                      {...field}
                      field="recovery"
                      label="Recovery questions"
                      hint="Its page insists on them. Who knows the customer knows true answers."
                      options={[
                        { value: 'made-up', label: 'made-up words' },
                        { value: 'real', label: 'true answers' },
                        { value: 'not-asked', label: 'it did not ask' }
                      ]}
                    />
                    {unit.facts.recovery === 'made-up' && (
                      <SecretFact
                        purpose="recovery-answers"
                        thing="unit"
                        id={unit.id}
                        label={`Recovery answers of ${unitName(unit)}`}
                        canMake
                      />
                    )}
                  </div>
                )}
                {converted && (
                  <div className="flex flex-wrap gap-x-6 gap-y-3 xl:col-span-2">
                    <ChoiceFact {...field} field="dhcpServer" label="Its DHCP server" options={onOff} />
                    <ChoiceFact {...field} field="dhcpRelay" label="Its DHCP relay" options={onOff} />
                    <ChoiceFact {...field} field="secondaryAddress" label="Its secondary address" options={onOff} />
                  </div>
                )}
              </div>
            </AnsweredOnce>
          </li>
        )
      })}
    </ul>
  )
}
