import { bands } from '@pasado/core/values/band'
import { methodKinds, methodNeeds, roles, type Model } from '@pasado/core/catalogue/model'
import { labelFields, labelFieldWords } from '@pasado/core/labels/fields'
import { useEditing, valueAt } from './draft'
import { CheckAt, NumberAt, Rows, SelectAt, SeveralAt, TextAt, WordsAt } from './fields'

const words = (list: readonly string[]) => list.map((value) => ({ value, words: value.replaceAll('-', ' ') }))
const portKinds = ['internet', 'lan', 'coax', 'telephone-line', 'fibre', 'telephone', 'usb', 'mains']
const useStates = () =>
  words(((valueAt(useEditing().draft, ['states']) as Model['states'] | undefined) ?? []).map(({ state }) => state)).map(
    ({ value }) => ({ value, words: value })
  )

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
      <SeveralAt path={['roles']} label="Can be" options={words(roles)} />
      <TextAt path={['twin']} label="How it is told from its twin" empty="away" />
      <SeveralAt
        path={['label']}
        label="On its label"
        options={labelFields.map((value) => ({ value, words: labelFieldWords[value] }))}
      />
      <fieldset>
        <legend className="label">What values on the label look like</legend>
        <p className="fine">
          9 a digit, A a capital, a a small letter, X and x letter or digit, C and c the same without look-alikes, H
          hexadecimal; \ before a character takes it as it is.
        </p>
        <div className="mt-1 grid gap-3 sm:grid-cols-3">
          {(['serial', 'mac', 'key', 'setupCode', 'password'] as const).map((one) => (
            <TextAt
              key={one}
              path={['masks', one]}
              label={
                {
                  serial: 'Serial',
                  mac: 'MAC address, 12 digits',
                  key: 'Network key',
                  setupCode: 'Setup code',
                  password: 'Password of its page'
                }[one]
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
            options={models.map(({ id, maker, name }) => ({ value: id, words: `unit: ${maker} ${name}` }))}
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
      <label className="flex min-h-11 items-center gap-2">
        <input
          type="checkbox"
          className="size-5 accent-plum"
          checked={power !== null}
          onChange={(event) => set(['power'], event.target.checked ? { plug: '', volts: 12, amps: 1 } : null)}
        />
        It has a power adapter
      </label>
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
            <SelectAt path={[...at, 'kind']} label="Kind" options={words(portKinds)} />
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

/** Ways to set it up, step by step. */
export function MethodsSection() {
  const states = useStates()
  const { draft, set } = useEditing()
  return (
    <Rows
      path={['methods']}
      label="Method"
      fresh={(count) => ({ id: `method-${count + 1}`, name: '', kind: 'app', needs: [], steps: [{ do: '' }] })}
    >
      {(at) => (
        <div className="flex flex-col gap-2">
          <div className="grid gap-2 sm:grid-cols-3">
            <TextAt path={[...at, 'name']} label="Name" />
            <TextAt path={[...at, 'id']} label="Id" exact />
            <SelectAt path={[...at, 'kind']} label="Kind" options={words(methodKinds)} />
          </div>
          <SeveralAt
            path={[...at, 'needs']}
            label="Needs"
            options={Object.keys(methodNeeds).map((value) => ({ value, words: value.replaceAll('-', ' ') }))}
          />
          <Rows path={[...at, 'steps']} label="Step" fresh={() => ({ do: '' })}>
            {(step) => {
              const waits = valueAt(draft, [...step, 'wait']) !== undefined
              return (
                <div className="flex flex-col gap-2">
                  <div className="grid gap-2 sm:grid-cols-[2fr_1fr]">
                    <TextAt path={[...step, 'do']} label="Do" />
                    <SelectAt
                      path={[...step, 'expect']}
                      label="Then the lamp shows"
                      none="nothing in particular"
                      options={states}
                    />
                  </div>
                  <div className="grid gap-2 sm:grid-cols-[2fr_1fr]">
                    <TextAt path={[...step, 'ifNot']} label="If it does not" empty="away" />
                    <label className="flex min-h-11 items-center gap-2 self-end">
                      <input
                        type="checkbox"
                        className="size-5 accent-plum"
                        checked={waits}
                        onChange={(event) =>
                          set(
                            [...step, 'wait'],
                            event.target.checked ? { leastMin: 1, usualMin: 2, mostMin: 5 } : undefined
                          )
                        }
                      />
                      a wait
                    </label>
                  </div>
                  {waits && (
                    <div className="grid grid-cols-3 gap-2">
                      <NumberAt path={[...step, 'wait', 'leastMin']} label="Least" unit="min" empty="keep" />
                      <NumberAt path={[...step, 'wait', 'usualMin']} label="Usually" unit="min" empty="keep" />
                      <NumberAt path={[...step, 'wait', 'mostMin']} label="At most" unit="min" empty="keep" />
                    </div>
                  )}
                </div>
              )
            }}
          </Rows>
        </div>
      )}
    </Rows>
  )
}

/** Prompts that the customer answers, and how updates come. */
export function PromptsSection() {
  return (
    <div className="flex flex-col gap-4">
      <Rows
        path={['prompts']}
        label="Prompt"
        fresh={(count) => ({ id: `prompt-${count + 1}`, text: '' })}
        columns="minmax(0,1fr) minmax(0,3fr)"
      >
        {(at) => (
          <>
            <TextAt path={[...at, 'id']} label="Id" exact quiet />
            <TextAt path={[...at, 'text']} label="What it asks" quiet />
          </>
        )}
      </Rows>
    </div>
  )
}

/** Bands, widths, power and where they are permitted; mesh limits. */
export function RadiosSection() {
  const { draft, set } = useEditing()
  const mesh = valueAt(draft, ['mesh'])
  return (
    <div className="flex flex-col gap-4">
      <Rows
        path={['radios']}
        label="Radio"
        fresh={() => ({ band: '5', widthsMHz: [20, 40, 80], streams: 2, powerDbm: 20, countries: [] })}
      >
        {(at) => (
          <div className="grid gap-2 sm:grid-cols-4">
            <SelectAt
              path={[...at, 'band']}
              label="Band"
              options={bands.map((value) => ({ value, words: `${value} GHz` }))}
            />
            <NumberAt path={[...at, 'streams']} label="Streams" empty="keep" />
            <NumberAt path={[...at, 'powerDbm']} label="Power" unit="dBm" empty="keep" />
            <WordsAt path={[...at, 'countries']} label="Permitted in" />
            <div className="sm:col-span-4">
              <SeveralAt
                path={[...at, 'widthsMHz']}
                label="Widths"
                options={[20, 40, 80, 160].map((value) => ({ value, words: `${value} MHz` }))}
              />
            </div>
          </div>
        )}
      </Rows>
      <label className="flex min-h-11 items-center gap-2">
        <input
          type="checkbox"
          className="size-5 accent-plum"
          checked={mesh !== null}
          onChange={(event) => set(['mesh'], event.target.checked ? { members: 4, hops: 2 } : null)}
        />
        It can be a member of a mesh
      </label>
      {mesh !== null && (
        <div className="grid max-w-md grid-cols-2 gap-3">
          <NumberAt path={['mesh', 'members']} label="Members, or any number" empty="null" />
          <NumberAt path={['mesh', 'hops']} label="Wireless hops" empty="keep" />
        </div>
      )}
    </div>
  )
}

/** Releases, what they install from, the approved minimum. */
export function FirmwareSection() {
  const { draft, set } = useEditing()
  const timed = valueAt(draft, ['firmware', 'installMin']) !== undefined
  return (
    <div className="flex flex-col gap-4">
      <div className="grid gap-3 sm:grid-cols-3">
        <TextAt path={['firmware', 'minimum']} label="Approved from" exact />
        <SelectAt path={['updates']} label="Updates" options={words(['automatic', 'managed', 'either', 'none'])} />
      </div>
      <label className="flex min-h-11 items-center gap-2">
        <input
          type="checkbox"
          className="size-5 accent-plum"
          checked={timed}
          onChange={(event) =>
            set(['firmware', 'installMin'], event.target.checked ? { usual: 5, most: 15 } : undefined)
          }
        />
        How long one install takes is known
      </label>
      {timed && (
        <div className="grid max-w-md grid-cols-2 gap-3">
          <NumberAt path={['firmware', 'installMin', 'usual']} label="Usually" unit="min" empty="keep" />
          <NumberAt path={['firmware', 'installMin', 'most']} label="At most" unit="min" empty="keep" />
        </div>
      )}
      <Rows
        path={['firmware', 'releases']}
        label="Release"
        fresh={() => ({ version: '', date: '2026-01-01', fixesHole: false, withdrawn: false })}
        columns="minmax(0,1fr) minmax(0,1fr) minmax(0,1fr) auto auto"
      >
        {(at) => (
          <>
            <TextAt path={[...at, 'version']} label="Version" exact />
            <TextAt path={[...at, 'date']} label="Of, year-month-day" exact />
            <TextAt path={[...at, 'needs']} label="Installs from" exact empty="away" />
            <CheckAt path={[...at, 'fixesHole']} label="fixes a hole" />
            <CheckAt path={[...at, 'withdrawn']} label="withdrawn" />
          </>
        )}
      </Rows>
    </div>
  )
}
