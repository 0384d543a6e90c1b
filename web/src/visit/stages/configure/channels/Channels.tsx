import { FileButton } from '../../../../ui/FileButton'
import { bands, type Band } from '@pasado/core/values/band'
import { useEffect, useMemo, useState } from 'react'
import { v7 as uuidv7 } from 'uuid'
import { type Facts } from '@pasado/core/record/facts'
import { neighbourNetwork } from '@pasado/core/record/neighbour-network'
import { readNumber } from '@pasado/core/values/number'
import { choicesFor, type ChannelChoice } from '@pasado/core/radio/channel-plan'
import { homeRadios, type HomeChannels, type HomeRadio } from '@pasado/core/work/channels/home-channels'
import { MOST_NEIGHBOURS, neighboursFromCsv } from '@pasado/core/documents/neighbours-csv'
import { needsRadarWatch } from '@pasado/core/radio/permitted'
import { ApiProblem, ask } from '../../../../app/api'
import { askChannels } from '../../../../workers/channels'
import { Spectrum } from './Spectrum'
import { useMayWrite } from '../../../session/facts'
import { placeKey } from '../../../session/place'
import { useVisit, write } from '../../../session/store'
import { Button } from '../../../../ui/Button'

const sets = { '1-6-11': [1, 6, 11], '1-5-9-13': [1, 5, 9, 13] } as const

/** Configure: channel and width of every radio, against the neighbours' networks and each other. */
export function Channels() {
  const record = useVisit((state) => state.record)
  const catalogue = useVisit((state) => state.catalogue)
  const policy = useVisit((state) => state.standard.policy)
  const mayWrite = useMayWrite()
  const [radar, setRadar] = useState(true)
  const [found, setFound] = useState<HomeChannels | null>(null)
  const radios = useMemo(() => homeRadios(record, catalogue), [record, catalogue])
  const set24 = sets[policy.channelSet ?? '1-6-11']
  const { radios: recorded, neighbours, units, rooms, storeys, walls, brief } = record
  useEffect(() => {
    const state = useVisit.getState()
    askChannels({ record: state.record, models: [...state.catalogue], set24, radar }, setFound)
  }, [recorded, neighbours, units, rooms, storeys, walls, brief, set24, radar])
  if (radios.length === 0) return <p>No unit here sends anything. Add units under Kit.</p>
  const best = found && found.radios.length === radios.length ? found.best : null
  const set = (radio: HomeRadio, change: Facts<'radio'>) =>
    write('radio.set', {
      id: radio.recorded?.id ?? uuidv7(),
      set: radio.recorded ? change : { unit: radio.unit, band: radio.band, ...change },
      origin: 'typed'
    })
  const take = () =>
    best?.choices.forEach((choice, at) => {
      const radio = radios[at]!
      write('radio.set', {
        id: radio.recorded?.id ?? uuidv7(),
        set: { unit: radio.unit, band: radio.band, ...choice },
        origin: 'calculated'
      })
    })
  const same =
    best !== null &&
    radios.every(
      (radio, at) =>
        radio.recorded?.facts.channel === best.choices[at]!.channel &&
        radio.recorded.facts.widthMHz === best.choices[at]!.widthMHz
    )
  const bands = [...new Set(radios.map(({ band }) => band))].sort()
  const share = (lost: readonly number[]) =>
    `${Math.round((lost.reduce((sum, one) => sum + one, 0) / radios.length) * 100)} %`
  const costShare = (cost: number) => `${Math.round((cost / radios.length) * 100)} %`
  const country = brief.facts.country
  return (
    <div>
      <Neighbours />
      <div
        className="mt-4 flex flex-wrap items-center gap-3"
        data-place={placeKey({ kind: 'radio', id: 'plan', field: 'channel' })}
      >
        <p className="grow">
          {best ? (
            <>
              <b>
                {found!.now
                  ? `As set now ${share(found!.now.lost)} of the rate is lost; the plan loses`
                  : 'The plan loses'}{' '}
                {share(best.lost)}
              </b>
              {best.proven ? ', and no plan loses less.' : `; none can cost less than ${costShare(best.bound)}.`}
            </>
          ) : (
            'Reckoning …'
          )}
        </p>
        <label className="inline-flex min-h-11 items-center gap-2">
          <input
            type="checkbox"
            className="size-5 accent-plum"
            checked={radar}
            onChange={(event) => setRadar(event.target.checked)}
          />
          radar channels too
        </label>
        {mayWrite && (
          <Button kind="main" disabled={!best || same} onClick={take}>
            {same ? 'The plan is recorded' : 'Record the plan'}
          </Button>
        )}
      </div>
      {bands.map((band) => (
        <section key={band} aria-label={`Channels at ${band} GHz`} className="mt-4">
          <h3>{band} GHz</h3>
          <Spectrum
            band={band}
            country={country}
            neighbours={neighbours?.networks ?? []}
            own={radios.flatMap((radio, at) =>
              radio.band === band
                ? [{ name: radio.name, now: recordedChoice(radio), planned: best?.choices[at] ?? null }]
                : []
            )}
          />
          <ul className="mt-1 divide-y divide-rule border-y border-rule">
            {radios.map(
              (radio, at) =>
                radio.band === band && (
                  <RadioRow
                    key={radio.id}
                    radio={radio}
                    planned={best?.choices[at] ?? null}
                    lost={best?.lost[at] ?? null}
                    country={country}
                    set24={set24}
                    onSet={(change) => set(radio, change)}
                  />
                )
            )}
          </ul>
          {band === '2.4' && (
            <p className="fine mt-1">
              Only {set24.join(', ').replace(/, (\d+)$/, ' and $1')} stand clear of each other: 10 lies within both 6
              and 11 and hears the two of them, so it is no fourth free channel. 20 MHz wide.
            </p>
          )}
        </section>
      ))}
      <p className="fine mt-3">
        Calculated: of each radio’s best rate, the share that a narrower channel, neighbours in its channel and our own
        other radios take; members of a mesh without a radio of its own for the hop share one channel. Wider is faster
        only where the air is empty. Channels and powers are as the country permits: its authority has the last word.
      </p>
    </div>
  )
}

const recordedChoice = ({ recorded }: HomeRadio): ChannelChoice | null =>
  recorded?.facts.channel !== undefined && recorded.facts.widthMHz !== undefined
    ? { channel: recorded.facts.channel, widthMHz: recorded.facts.widthMHz }
    : null

function RadioRow({
  radio,
  planned,
  lost,
  country,
  set24,
  onSet
}: {
  radio: HomeRadio
  planned: ChannelChoice | null
  lost: number | null
  country: string | undefined
  set24: readonly number[]
  onSet: (change: Facts<'radio'>) => void
}) {
  const mayWrite = useMayWrite()
  const { recorded, band, name } = radio
  const channels = useMemo(
    () =>
      [
        ...new Set([
          ...choicesFor({ country, set24, radar: true }, { band, widthsMHz: [20] }).map(({ channel }) => channel),
          ...(recorded?.facts.channel === undefined ? [] : [recorded.facts.channel])
        ])
      ].sort((a, b) => a - b),
    [band, country, set24, recorded?.facts.channel]
  )
  const watch = planned && needsRadarWatch(country, band, planned.channel, planned.widthMHz)
  return (
    <li
      data-place={placeKey({ kind: 'radio', id: radio.id, field: 'channel' })}
      className="grid items-center gap-x-4 gap-y-1 py-2 sm:grid-cols-[10rem_9rem_8rem_minmax(0,1fr)]"
    >
      <b>
        {name}
        {radio.backhaul && <span className="fine block font-normal">and the mesh’s own way</span>}
      </b>
      <select
        className="box"
        aria-label={`Channel of ${name}, ${band} GHz`}
        disabled={!mayWrite}
        value={recorded?.facts.channel ?? ''}
        onChange={(event) => onSet({ channel: Number(event.target.value) })}
      >
        <option value="" disabled>
          channel
        </option>
        {channels.map((channel) => (
          <option key={channel} value={channel}>
            {channel}
          </option>
        ))}
      </select>
      <select
        className="box"
        aria-label={`Width of ${name}, ${band} GHz`}
        disabled={!mayWrite}
        value={recorded?.facts.widthMHz ?? ''}
        onChange={(event) => onSet({ widthMHz: Number(event.target.value) as 20 })}
      >
        <option value="" disabled>
          width
        </option>
        {radio.widthsMHz.map((width) => (
          <option key={width} value={width}>
            {width} MHz
          </option>
        ))}
      </select>
      <span className="text-sm">
        {planned ? (
          <>
            planned{' '}
            <b>
              {planned.channel}, {planned.widthMHz} MHz
            </b>
            {lost === null ? '' : `: ${Math.round(lost * 100)} % lost`}
            {watch ? '; listens a minute for radar, and leaves when it hears one' : ''}
          </>
        ) : (
          ''
        )}
      </span>
    </li>
  )
}

/** The networks of others: from a list, or one by one. */
function Neighbours() {
  const neighbours = useVisit((state) => state.record.neighbours)
  const house = useVisit((state) => state.record.house)
  const mayWrite = useMayWrite()
  const [told, setTold] = useState<string | null>(null)
  const [problems, setProblems] = useState<{ line: number; problem: string }[]>([])
  const [band, setBand] = useState<Band>('2.4')
  const [channel, setChannel] = useState('')
  const [dbm, setDbm] = useState('')
  const list = neighbours?.networks ?? []
  const listen = async () => {
    try {
      const { definition } = await ask('GET /houses/:id', { params: { id: house! } })
      const heard = [...(definition.air ?? [])].sort((a, b) => b.dbm - a.dbm)
      write('neighbours.noted', { networks: heard })
      setProblems([])
      setTold(
        heard.length === 0
          ? 'Nothing else is heard in this house.'
          : `${heard.length} networks heard in the simulated house, and noted.`
      )
    } catch (error) {
      setTold(error instanceof ApiProblem ? error.document.title : 'The server is not in reach; try again.')
    }
  }
  const read = async (file: File) => {
    if (file.size > 20_000_000) {
      setTold(`${file.name} is larger than 20 MB: take the part of it that was heard here.`)
      return
    }
    const found = neighboursFromCsv(await file.text())
    setProblems(found.problems.slice(0, 6))
    if (found.networks.length === 0) {
      setTold(found.problems.length ? null : `${file.name} holds no network.`)
      return
    }
    write('neighbours.noted', { networks: found.networks })
    setTold(
      `${found.networks.length} networks noted${found.of > found.networks.length ? `, the ${MOST_NEIGHBOURS} strongest of ${found.of}` : ''}.`
    )
  }
  const add = (event: React.FormEvent) => {
    event.preventDefault()
    const parsed = neighbourNetwork.safeParse({
      band,
      channel: readNumber(channel),
      widthMHz: 20,
      dbm: readNumber(dbm),
      busy: 0.15
    })
    if (!parsed.success) {
      setTold(
        `${{ channel: 'Channel must be a whole number from 1 to 233', dbm: 'Signal must be from -110 to -10 dBm' }[String(parsed.error.issues[0]!.path[0])] ?? 'That is no network'}.`
      )
      return
    }
    write('neighbours.noted', {
      networks: [...list, parsed.data].sort((a, b) => b.dbm - a.dbm).slice(0, MOST_NEIGHBOURS)
    })
    setChannel('')
    setDbm('')
    setTold(null)
  }
  return (
    <section aria-label="Neighbours’ networks">
      <div className="flex flex-wrap items-center gap-3">
        <h3>Neighbours’ networks</h3>
        <p className="fine grow">
          {list.length === 0
            ? 'none noted: the plan takes the air for empty'
            : `${list.length} noted, the strongest at ${list[0]!.dbm} dBm`}
        </p>
        {mayWrite && house && <Button onClick={() => void listen()}>Listen in the simulated house</Button>}
        {mayWrite && (
          <FileButton accept=".csv,text/csv" onFile={(file) => void read(file)}>
            From a list (CSV)
          </FileButton>
        )}
      </div>
      {mayWrite && (
        <form onSubmit={add} className="mt-2 flex flex-wrap items-end gap-2" aria-label="One more network">
          <label className="label">
            Band
            <select
              className="box mt-1 font-normal"
              value={band}
              onChange={(event) => setBand(event.target.value as Band)}
            >
              {bands.map((one) => (
                <option key={one} value={one}>
                  {one} GHz
                </option>
              ))}
            </select>
          </label>
          <label className="label w-28">
            Channel
            <input
              className="box exact mt-1 font-normal"
              inputMode="numeric"
              autoComplete="off"
              value={channel}
              onChange={(event) => setChannel(event.target.value)}
            />
          </label>
          <label className="label w-32">
            Signal, dBm
            <input
              className="box exact mt-1 font-normal"
              inputMode="text"
              autoComplete="off"
              value={dbm}
              onChange={(event) => setDbm(event.target.value)}
            />
          </label>
          <Button type="submit" disabled={!channel || !dbm}>
            Note it
          </Button>
        </form>
      )}
      {told && (
        <p role="status" className="mt-2 font-bold">
          {told}
        </p>
      )}
      {problems.length > 0 && (
        <ul role="alert" className="mt-2 border-l-4 border-ink bg-well p-3">
          {problems.map(({ line, problem }) => (
            <li key={line}>
              Line {line}: {problem}.
            </li>
          ))}
        </ul>
      )}
    </section>
  )
}
