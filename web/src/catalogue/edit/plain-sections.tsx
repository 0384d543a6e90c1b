import { Tick } from '../../ui/Tick'
import { roles, type Model } from '@pasado/core/catalogue/model'
import { labelFields, labelFieldWords } from '@pasado/core/labels/fields'
import { useEditing, valueAt } from './draft'
import { CheckAt, NumberAt, Rows, SelectAt, SeveralAt, TextAt } from './fields'
import { useStates, optionsOf } from './options'

const portKinds = ['internet', 'lan', 'coax', 'telephone-line', 'fibre', 'telephone', 'usb', 'mains']

/** Who it is, what it can be, what stands on its label. */
export function IdentitySection({ fresh }: { fresh: boolean }) {
  return (
    <div className="flex flex-col gap-4">
      <div className="grid gap-3 sm:grid-cols-3">
        <TextAt path={['maker']} label="Maker" />
        <TextAt path={['name']} label="Name" />
        {fresh ? (
          <TextAt path={['id']} label="Id" exact />
        ) : (
          <TextAt path={['family']} label="Mesh family" exact empty="null" />
        )}
      </div>
      {fresh && <TextAt path={['family']} label="Mesh family" exact empty="null" />}
      <SeveralAt path={['roles']} label="Can be" options={optionsOf(roles)} />
      <TextAt path={['twin']} label="How it is told from its twin" empty="away" />
      <SeveralAt
        path={['label']}
        label="On its label"
        options={labelFields.map((value) => ({ value, label: labelFieldWords[value] }))}
      />
      <fieldset>
        <legend className="label">What values on the label look like</legend>
        <p className="fine">
          9 a digit, A a capital, a a small letter, X and x letter or digit, C and c the same without look-alikes, H
          hexadecimal; \ before a character takes it as it is.
        </p>
        <div className="mt-1 grid gap-3 sm:grid-cols-3">
          {(['serial', 'mac', 'key', 'setupCode', 'password'] as const).map((field) => (
            <TextAt
              key={field}
              path={['masks', field]}
              label={
                {
                  serial: 'Serial',
                  mac: 'MAC address, 12 digits',
                  key: 'Network key',
                  setupCode: 'Setup code',
                  password: 'Password of its page'
                }[field]
              }
              exact
              empty="away"
            />
          ))}
          <TextAt path={['defaultSsidPrefix']} label="Network names begin with" exact empty="null" />
        </div>
      </fieldset>
    </div>
  )
}

function Items({ path, models }: { path: (string | number)[]; models: readonly Model[] }) {
  return (
    <Rows
      path={path}
      label="Item"
      fresh={() => ({ item: '', count: 1 })}
      columns="minmax(0,3fr) 5rem minmax(0,2fr) auto"
    >
      {(at) => (
        <>
          <TextAt path={[...at, 'item']} label="Item" quiet />
          <NumberAt path={[...at, 'count']} label="How many" quiet empty="keep" />
          <SelectAt
            path={[...at, 'unit']}
            label="Is a unit of"
            quiet
            none="no unit"
            options={models.map(({ id, maker, name }) => ({ value: id, label: `unit: ${maker} ${name}` }))}
          />
          <CheckAt path={[...at, 'adapter']} label="adapter" away />
        </>
      )}
    </Rows>
  )
}

/** What is in its boxes. */
export function BoxSection({ models }: { models: readonly Model[] }) {
  const { draft } = useEditing()
  const self = draft as Model
  const known = models.some(({ id }) => id === self.id) ? models : [...models, self]
  return (
    <div className="flex flex-col gap-5">
      <div>
        <h3>The box of a single unit</h3>
        <Items path={['box']} models={known} />
      </div>
      <div>
        <h3>Other boxes</h3>
        <Rows
          path={['kits']}
          label="Kit"
          fresh={(count) => ({ id: `kit-${count + 1}`, name: '', items: [{ item: '', count: 1 }] })}
        >
          {(at) => (
            <div className="flex flex-col gap-2">
              <div className="grid gap-2 sm:grid-cols-2">
                <TextAt path={[...at, 'name']} label="What it is called" />
                <TextAt path={[...at, 'id']} label="Id" exact />
              </div>
              <Items path={[...at, 'items']} models={known} />
            </div>
          )}
        </Rows>
      </div>
    </div>
  )
}

/** Adapter, ports and what they give. */
export function PowerSection() {
  const { draft, set } = useEditing()
  const power = valueAt(draft, ['power'])
  return (
    <div className="flex flex-col gap-4">
      <Tick
        checked={power !== null}
        onTick={(checked) => set(['power'], checked ? { plug: '', volts: 12, amps: 1 } : null)}
      >
        It has a power adapter
      </Tick>
      {power !== null && (
        <div className="grid gap-3 sm:grid-cols-3">
          <TextAt path={['power', 'plug']} label="Plug" />
          <NumberAt path={['power', 'volts']} label="Volts" unit="V" empty="keep" />
          <NumberAt path={['power', 'amps']} label="Amps" unit="A" empty="keep" />
        </div>
      )}
      <h3>Ports</h3>
      <Rows
        path={['ports']}
        label="Port"
        fresh={(count) => ({ id: `port-${count + 1}`, name: String(count + 1), colour: 'grey', kind: 'lan' })}
        columns="repeat(4,minmax(0,1fr))"
      >
        {(at) => (
          <>
            <TextAt path={[...at, 'id']} label="Id" exact />
            <TextAt path={[...at, 'name']} label="Name" />
            <TextAt path={[...at, 'colour']} label="Colour" />
            <SelectAt path={[...at, 'kind']} label="Kind" options={optionsOf(portKinds)} />
            <NumberAt path={[...at, 'mbps']} label="Speed" unit="Mbit/s" />
            <NumberAt path={[...at, 'powerOutW']} label="Gives power" unit="W" />
            <NumberAt path={[...at, 'powerInClass']} label="Takes power" unit="class" />
          </>
        )}
      </Rows>
      <div className="max-w-60">
        <NumberAt path={['powerBudgetW']} label="All powered ports together" unit="W" />
      </div>
    </div>
  )
}

/** Buttons, and what a press of how long does. */
export function ButtonsSection() {
  const states = useStates()
  return (
    <Rows
      path={['buttons']}
      label="Button"
      fresh={(count) => ({ id: `button-${count + 1}`, name: '', presses: [{ leastS: 0.5, mostS: 3, does: '' }] })}
    >
      {(at) => (
        <div className="flex flex-col gap-2">
          <div className="grid gap-2 sm:grid-cols-2">
            <TextAt path={[...at, 'name']} label="Name" />
            <TextAt path={[...at, 'id']} label="Id" exact />
          </div>
          <Rows
            path={[...at, 'presses']}
            label="Press"
            fresh={() => ({ leastS: 1, mostS: 3, does: '' })}
            columns="6.5rem 6.5rem minmax(0,2fr) minmax(0,1fr)"
          >
            {(press) => (
              <>
                <NumberAt path={[...press, 'leastS']} label="From" unit="s" empty="keep" />
                <NumberAt path={[...press, 'mostS']} label="To, or longer" unit="s" empty="null" />
                <TextAt path={[...press, 'does']} label="Does" />
                <SelectAt path={[...press, 'confirms']} label="Lamp then shows" none="nothing" options={states} />
              </>
            )}
          </Rows>
        </div>
      )}
    </Rows>
  )
}
