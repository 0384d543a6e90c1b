import { Tick } from '../../../../ui/Tick'
import { useEffect, useMemo, useState } from 'react'
import { v7 as uuidv7 } from 'uuid'
import { type Facts } from '@pasado/core/record/facts'
import { homeRadios, type HomeChannels, type HomeRadio } from '@pasado/core/work/channels/home-channels'
import { countryChoices } from '@pasado/core/radio/permissions'
import { permittedBy, unknownCountry } from '@pasado/core/radio/permitted'
import { askChannels } from '../../../../workers/channels'
import { Spectrum } from './Spectrum'
import { useMayWrite } from '../../../session/facts'
import { placeKey } from '../../../session/place'
import { useVisit } from '../../../session/visit-state'
import { write } from '../../../session/write'
import { Button } from '../../../../ui/Button'
import { recordedChoice, RadioRow } from './RadioRow'
import { Neighbours } from './Neighbours'
import { StayingRadios } from './StayingRadios'
import { List } from '../../../../ui/List'
import { Select } from '../../../../ui/Field'

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
  const { radios: recorded, neighbours, units, stays, rooms, storeys, walls, brief } = record
  useEffect(() => {
    const state = useVisit.getState()
    askChannels({ record: state.record, models: [...state.catalogue], set24, radar }, setFound)
  }, [recorded, neighbours, units, stays, rooms, storeys, walls, brief, set24, radar])
  if (radios.length === 0) return <p>No unit here sends anything. Add units under Kit.</p>
  const best = found && found.radios.length === radios.length ? found.best : null
  const set = (radio: HomeRadio, change: Facts<'radio'>) =>
    write('radio.set', {
      id: radio.recorded?.id ?? uuidv7(),
      set: radio.recorded ? change : { unit: radio.unit, band: radio.band, ...change },
      origin: 'typed'
    })
  const leftTo = (unit: string, radiosOfIt: readonly HomeRadio[]) => {
    write('unit.set', { id: unit, set: { autoChannels: true } })
    for (const { recorded: thing } of radiosOfIt)
      if (thing) write('radio.set', { id: thing.id, set: { channel: null, widthMHz: null } })
  }
  const open = [
    ...new Set(
      radios
        .filter((radio) => recordedChoice(radio) === null && !units[radio.unit]!.facts.autoChannels)
        .map(({ unit }) => unit)
    )
  ]
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
    `${Math.round((lost.reduce((sum, value) => sum + value, 0) / radios.length) * 100)} %`
  const costShare = (cost: number) => `${Math.round((cost / radios.length) * 100)} %`
  const country = brief.facts.country
  const unknown = unknownCountry(country)
  const permitted = permittedBy(country)
  return (
    <div>
      <Neighbours />
      <StayingRadios />
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
            (unknown?.what ?? 'Reckoning …')
          )}
        </p>
        {unknown && mayWrite && <Country country={country} />}
        <Tick checked={radar} onTick={(checked) => setRadar(checked)}>
          radar channels too
        </Tick>
        {mayWrite && open.length > 0 && (
          <Button onClick={() => open.forEach((unit) => leftTo(unit, []))}>
            {open.length === 1 ? 'It chooses by itself' : 'They choose by themselves'}
          </Button>
        )}
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
          <List framed className="mt-1">
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
                    byItself={units[radio.unit]!.facts.autoChannels === true}
                    onSet={(change) => set(radio, change)}
                    onByItself={() => leftTo(radio.unit, [radio])}
                  />
                )
            )}
          </List>
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
        only where the air is empty.{' '}
        {permitted ? `Permitted channels of ${permitted}` : 'Powers are as the country permits'}: its authority has the
        last word.
      </p>
    </div>
  )
}

/** Asks for the country of the home, where no channel can be planned without it. */
function Country({ country }: { country: string | undefined }) {
  return (
    <Select
      aria-label="Country of the home"
      className="w-56"
      value={country ?? ''}
      onChange={(event) => write('brief.set', { set: { country: event.target.value || null } })}
    >
      <option value="">country not recorded</option>
      {countryChoices(country).map(({ value, label }) => (
        <option key={value} value={value}>
          {label}
        </option>
      ))}
    </Select>
  )
}
