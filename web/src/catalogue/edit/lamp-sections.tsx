import type { Model } from '@pasado/core/catalogue/model'
import { lampColours, lampPatterns, lookWords, type LampLook } from '@pasado/core/catalogue/look'
import { Lens } from '../../ui/Lens'
import { useEditing, valueAt, type Path } from './draft'
import { CheckAt, NumberAt, Rows, SelectAt, TextAt, useFault } from './fields'
import { Select } from '../../ui/Field'

const patternWords: Record<string, string> = {
  off: 'dark',
  solid: 'steady',
  blink: 'blinking',
  'fast-blink': 'blinking fast',
  pulse: 'slow pulse',
  alternate: 'in turn'
}
const colours = lampColours.filter((colour) => colour !== 'off')

/** Lamps, and what each state looks like. */
export function LampsSection() {
  const { draft } = useEditing()
  const lamps = (valueAt(draft, ['lamps']) as Model['lamps'] | undefined) ?? []
  const states = (valueAt(draft, ['states']) as Model['states'] | undefined) ?? []
  return (
    <div className="flex flex-col gap-4">
      <Rows
        path={['lamps']}
        label="Lamp"
        fresh={(count) => ({ id: `lamp-${count + 1}`, name: '' })}
        columns="minmax(0,1fr) minmax(0,1fr)"
      >
        {(at) => (
          <>
            <TextAt path={[...at, 'name']} label="Name" quiet />
            <TextAt path={[...at, 'id']} label="Id" exact quiet />
          </>
        )}
      </Rows>
      <div className="grid gap-3 sm:grid-cols-2">
        <SelectAt
          path={['start']}
          label="It starts in"
          options={states.map(({ state }) => ({ value: state, label: state }))}
        />
        <CheckAt path={['lampsCanBeOff']} label="Its lamps can be switched off" />
      </div>
      <Rows
        path={['states']}
        label="State"
        fresh={(count) => ({
          state: `state-${count + 1}`,
          lamps: lamps.map(({ id }) => ({ lamp: id, colour: 'white', pattern: 'solid' })),
          meaning: '',
          action: '',
          good: false
        })}
      >
        {(at) => (
          <div className="flex flex-col gap-2">
            <div className="grid gap-2 sm:grid-cols-[1fr_2fr_2fr]">
              <TextAt path={[...at, 'state']} label="State" exact />
              <TextAt path={[...at, 'meaning']} label="Means" />
              <TextAt path={[...at, 'action']} label="Do" />
            </div>
            <div className="flex flex-wrap items-end gap-x-4 gap-y-2">
              {lamps.map((lamp) => (
                <LookAt key={lamp.id} path={[...at, 'lamps']} lamp={lamp} />
              ))}
              <div className="w-24">
                <NumberAt path={[...at, 'usualMin']} label="Usually" unit="min" />
              </div>
              <div className="w-24">
                <NumberAt path={[...at, 'maxMin']} label="At most" unit="min" />
              </div>
              <CheckAt path={[...at, 'good']} label="good" />
            </div>
            <LooksFault path={[...at, 'lamps']} />
          </div>
        )}
      </Rows>
    </div>
  )
}

function LooksFault({ path }: { path: Path }) {
  const fault = useFault(path, true)
  return fault ? (
    <p role="alert" className="text-sm font-bold">
      {fault}
    </p>
  ) : null
}

/** The colour of a look as it is stored: none, one, or the two that take turns. */
function colourIn(pattern: LampLook['pattern'], first: string, two: string): string {
  if (pattern === 'off') return 'off'
  if (pattern !== 'alternate') return first
  const other = first === 'green' ? 'white' : 'green'
  return `${first}/${two === first ? other : two}`
}

/** What one lamp looks like in a state; a state may say nothing of a lamp. */
function LookAt({ path, lamp }: { path: Path; lamp: Model['lamps'][number] }) {
  const { draft, set } = useEditing()
  const looks = (valueAt(draft, path) as LampLook[] | undefined) ?? []
  const look = looks.find((candidate) => candidate.lamp === lamp.id)
  const put = (next: LampLook | null) => {
    if (!next)
      set(
        path,
        looks.filter((candidate) => candidate !== look)
      )
    else set(path, look ? looks.map((other) => (other === look ? next : other)) : [...looks, next])
  }
  const [first = 'white', second = 'green'] = (look?.colour ?? 'white').split('/')
  const paint = (pattern: LampLook['pattern'], first: string, second: string): LampLook => ({
    lamp: lamp.id,
    pattern,
    colour: colourIn(pattern, first, second)
  })
  const shown = first === 'off' ? 'white' : first
  return (
    <fieldset className="min-w-0">
      <legend className="label">{lamp.name || lamp.id}</legend>
      <div className="mt-1 flex flex-wrap items-center gap-2">
        {look ? (
          <Lens colour={look.colour} pattern={look.pattern} size={34} />
        ) : (
          <span className="grid size-8.5 place-items-center rounded-full border-2 border-dotted border-edge text-soft">
            ?
          </span>
        )}
        <Select
          className="w-auto"
          aria-label={`Pattern of ${lamp.name}`}
          value={look?.pattern ?? ''}
          onChange={(event) =>
            put(event.target.value === '' ? null : paint(event.target.value as LampLook['pattern'], shown, second))
          }
        >
          <option value="">may do anything</option>
          {lampPatterns.map((lampPattern) => (
            <option key={lampPattern} value={lampPattern}>
              {patternWords[lampPattern]}
            </option>
          ))}
        </Select>
        {look && look.pattern !== 'off' && (
          <Select
            className="w-auto"
            aria-label={`Colour of ${lamp.name}`}
            value={shown}
            onChange={(event) => put(paint(look.pattern, event.target.value, second))}
          >
            {colours.map((colour) => (
              <option key={colour}>{colour}</option>
            ))}
          </Select>
        )}
        {look?.pattern === 'alternate' && (
          <Select
            className="w-auto"
            aria-label={`Second colour of ${lamp.name}`}
            value={second}
            onChange={(event) => put(paint('alternate', shown, event.target.value))}
          >
            {colours
              .filter((colour) => colour !== shown)
              .map((colour) => (
                <option key={colour}>{colour}</option>
              ))}
          </Select>
        )}
        {look && <span className="sr-only">{lookWords(look)}</span>}
      </div>
    </fieldset>
  )
}

/** Which state can follow which: a row for each, a tick under each that may come next. */
export function MovesSection() {
  const { draft, set } = useEditing()
  const states = ((valueAt(draft, ['states']) as Model['states'] | undefined) ?? []).map(({ state }) => state)
  const moves = (valueAt(draft, ['moves']) as Model['moves'] | undefined) ?? []
  const has = (from: string, to: string) => moves.some((move) => move.from === from && move.to === to)
  return (
    <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="Moves between states">
      <table className="border-collapse text-sm">
        <thead>
          <tr>
            <th className="p-1 text-left align-bottom font-normal text-soft">from ↓ to →</th>
            {states.map((to) => (
              <th key={to} scope="col" className="h-28 p-1 align-bottom">
                <span className="exact inline-block whitespace-nowrap [writing-mode:vertical-rl]">{to}</span>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {states.map((from) => (
            <tr key={from} className="border-t border-rule">
              <th scope="row" className="exact whitespace-nowrap p-1 pr-3 text-left font-normal">
                {from}
              </th>
              {states.map((to) => (
                <td key={to} className={from === to ? 'bg-well' : ''}>
                  <label className="grid size-11 place-items-center">
                    <input
                      type="checkbox"
                      className="size-5 accent-plum"
                      disabled={from === to}
                      aria-label={`from ${from} to ${to}`}
                      checked={has(from, to)}
                      onChange={(event) =>
                        set(
                          ['moves'],
                          event.target.checked
                            ? [...moves, { from, to }]
                            : moves.filter((move) => move.from !== from || move.to !== to)
                        )
                      }
                    />
                  </label>
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  )
}
