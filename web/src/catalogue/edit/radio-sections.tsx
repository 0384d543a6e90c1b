import { Tick } from '../../ui/Tick'
import { bands } from '@pasado/core/values/band'
import { useEditing, valueAt } from './draft'
import { CheckAt, NumberAt, Rows, SelectAt, SeveralAt, TextAt, WordsAt } from './fields'
import { optionsOf } from './options'

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
              options={bands.map((value) => ({ value, label: `${value} GHz` }))}
            />
            <NumberAt path={[...at, 'streams']} label="Streams" empty="keep" />
            <NumberAt path={[...at, 'powerDbm']} label="Power" unit="dBm" empty="keep" />
            <WordsAt path={[...at, 'countries']} label="Permitted in" />
            <div className="sm:col-span-4">
              <SeveralAt
                path={[...at, 'widthsMHz']}
                label="Widths"
                options={[20, 40, 80, 160].map((value) => ({ value, label: `${value} MHz` }))}
              />
            </div>
          </div>
        )}
      </Rows>
      <Tick checked={mesh !== null} onTick={(checked) => set(['mesh'], checked ? { members: 4, hops: 2 } : null)}>
        It can be a member of a mesh
      </Tick>
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
        <SelectAt path={['updates']} label="Updates" options={optionsOf(['automatic', 'managed', 'either', 'none'])} />
      </div>
      <Tick
        checked={timed}
        onTick={(checked) => set(['firmware', 'installMin'], checked ? { usual: 5, most: 15 } : undefined)}
      >
        How long one install takes is known
      </Tick>
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
