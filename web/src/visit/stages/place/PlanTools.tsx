import { outletKinds } from '@pasado/core/record/things/outlet'
import { troubleKinds } from '@pasado/core/record/things/trouble'
import { type openingKinds } from '@pasado/core/record/things/opening'
import { Chips } from '../../../ui/Chips'
import type { Tool } from './use-plan-drag'
import { Select } from '../../../ui/Field'

/** What each tool puts down next. */
export interface ToolKinds {
  outlet: (typeof outletKinds)[number]
  trouble: (typeof troubleKinds)[number]
  opening: Exclude<(typeof openingKinds)[number], 'stairs'>
  unit: string | null
  /** The socket that a cable begins at. */
  cableFrom: string | null
}

const toolWords: { value: Tool; label: string }[] = [
  { value: 'choose', label: 'choose and move' },
  { value: 'room', label: 'rooms' },
  { value: 'opening', label: 'doors, windows' },
  { value: 'stairs', label: 'stairs' },
  { value: 'outlet', label: 'outlets' },
  { value: 'cable', label: 'cables' },
  { value: 'trouble', label: 'trouble' },
  { value: 'unit', label: 'units' },
  { value: 'reading', label: 'readings' }
]

/** What the pointer does on the plan, and what it puts down. */
export function PlanTools({
  tool,
  kinds,
  waiting,
  onTool,
  onKinds
}: {
  tool: Tool
  kinds: ToolKinds
  waiting: readonly { id: string; name: string }[]
  onTool: (tool: Tool) => void
  onKinds: (kinds: ToolKinds) => void
}) {
  return (
    <div className="plan-bar mt-2 flex flex-wrap items-center gap-x-4 gap-y-2">
      <Chips label="Tool" value={tool} options={toolWords} onChoose={onTool} />
      {tool === 'opening' && (
        <Chips
          label="Kind of opening"
          value={kinds.opening}
          options={[
            { value: 'door', label: 'door' },
            { value: 'window', label: 'window' },
            { value: 'open', label: 'open' }
          ]}
          onChoose={(opening) => onKinds({ ...kinds, opening })}
        />
      )}
      {tool === 'outlet' && (
        <Chips
          label="Kind of outlet"
          value={kinds.outlet}
          options={outletKinds.map((value) => ({
            value,
            label: { mains: 'mains', line: 'the line', network: 'network' }[value]
          }))}
          onChoose={(outlet) => onKinds({ ...kinds, outlet })}
        />
      )}
      {tool === 'trouble' && (
        <Select
          className="w-auto"
          aria-label="Kind of trouble"
          value={kinds.trouble}
          onChange={(event) => onKinds({ ...kinds, trouble: event.target.value as ToolKinds['trouble'] })}
        >
          {troubleKinds.map((troubleKind) => (
            <option key={troubleKind} value={troubleKind}>
              {troubleKind.replaceAll('-', ' ')}
            </option>
          ))}
        </Select>
      )}
      {tool === 'unit' &&
        (waiting.length ? (
          <Chips
            label="Unit to place"
            value={kinds.unit ?? waiting[0]!.id}
            options={waiting.map(({ id, name }) => ({ value: id, label: name }))}
            onChoose={(unit) => onKinds({ ...kinds, unit })}
          />
        ) : (
          <p className="fine">Every unit stands in the plan; drag one to move it.</p>
        ))}
      {tool === 'opening' && <p className="fine">Press a wall where it is.</p>}
      {tool === 'stairs' && <p className="fine">Draw where they lie: a way for a cable between storeys.</p>}
      {tool === 'cable' && (
        <p className="fine">
          {kinds.cableFrom
            ? 'Now the network socket at its other end; on another storey, change the storey first.'
            : 'Press the network socket at one end.'}
        </p>
      )}
      {tool === 'reading' && <p className="fine">Press where you read it, then write it down under Readings.</p>}
    </div>
  )
}
