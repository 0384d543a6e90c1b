import { bands, type Band } from '@pasado/core/values/band'
import { useEffect, useMemo, useState } from 'react'
import { readNumber } from '@pasado/core/values/number'
import type { ChannelPlan, PlannedRadio } from '@pasado/core/radio/channel-plan'
import type { WidthMHz } from '@pasado/core/radio/channels'
import { neighboursFromCsv } from '@pasado/core/documents/neighbours-csv'
import { countryChoices } from '@pasado/core/radio/permissions'
import { permittedBy, radarMinutes, unknownCountry } from '@pasado/core/radio/permitted'
import { Spectrum } from '../visit/stages/configure/channels/Spectrum'
import { askBareChannels } from '../workers/channels'
import { keepCountry, lastCountry } from '../app/country'
import { BenchPage, BigFigure, NumberBox, SelectBox } from './parts'
import { Field, TextArea } from '../ui/Field'
import { List } from '../ui/List'

const widthsOf: Record<Band, WidthMHz[]> = { '2.4': [20], '5': [20, 40, 80, 160], '6': [20, 40, 80, 160] }
const MOST_RADIOS = 8
const radarWords = {
  0: '',
  1: '; listens a minute for radar first',
  10: '; listens ten minutes for radar first'
} as const
const example = 'band_ghz,channel,signal_dbm,width_mhz,busy_percent\n2.4,1,-55,20,40\n2.4,6,-61,20,30\n5,36,-66,80,50'

/** Channels and widths for radios of one's own among the neighbours', with the least of the rate lost. */
export function ChannelsPage() {
  const [band, setBand] = useState<Band>('2.4')
  const [count, setCount] = useState('3')
  const [hear, setHear] = useState('-70')
  const [country, setCountry] = useState(lastCountry)
  const [set, setSet] = useState<'1-6-11' | '1-5-9-13'>('1-6-11')
  const [list, setList] = useState(example)
  const [plan, setPlan] = useState<ChannelPlan | null>(null)
  const number = readNumber(count)
  const countProblem =
    Number.isInteger(number) && number >= 1 && number <= MOST_RADIOS
      ? null
      : `must be a whole number from 1 to ${MOST_RADIOS}`
  const hearDbm = readNumber(hear)
  const hearProblem = hearDbm >= -110 && hearDbm <= -10 ? null : 'must be from -110 to -10 dBm'
  const unknown = unknownCountry(country || undefined)
  const isKnown = unknown === null
  const { networks, problems } = useMemo(() => neighboursFromCsv(list), [list])
  const radios = useMemo(
    () =>
      Array.from({ length: countProblem ? 0 : number }, (_, at): PlannedRadio => ({
        id: `radio ${at + 1}`,
        band,
        widthsMHz: widthsOf[band]
      })),
    [band, number, countProblem]
  )
  useEffect(() => {
    setPlan(null)
    if (radios.length === 0 || hearProblem || !isKnown) return
    askBareChannels({ country, radios, neighbours: networks, hearDbm, set24: set.split('-').map(Number) }, setPlan)
  }, [radios, networks, hearDbm, hearProblem, country, isKnown, set])
  const lost = plan ? plan.lost.reduce((sum, value) => sum + value, 0) / plan.lost.length : 0
  return (
    <BenchPage
      title="Channels"
      source="Of each radio’s best rate: what a narrower channel gives up, what neighbours take in its channel by their signal and busy share, and what radios of one’s own take from each other. Branch and bound over every permitted choice, so that nothing better is left out."
      inputs={
        <>
          <SelectBox
            label="Band"
            value={band}
            options={bands.map((value) => ({ value, label: `${value} GHz` }))}
            onChange={setBand}
          />
          <NumberBox label="Own radios" unit="" value={count} onChange={setCount} problem={countProblem} />
          <NumberBox label="They hear each other at" unit="dBm" value={hear} onChange={setHear} problem={hearProblem} />
          <SelectBox
            label="Country"
            value={country}
            options={[{ value: '', label: 'not chosen' }, ...countryChoices()]}
            onChange={(chosen) => {
              keepCountry(chosen)
              setCountry(chosen)
            }}
          />
          <p className="fine">
            {permittedBy(country || undefined) ?? 'Which channels are permitted is the country’s to say.'}
          </p>
          {band === '2.4' && (
            <SelectBox
              label="Channels that do not overlap"
              value={set}
              options={[
                { value: '1-6-11', label: '1, 6 and 11' },
                { value: '1-5-9-13', label: '1, 5, 9 and 13' }
              ]}
              onChange={setSet}
            />
          )}
          <Field label="Neighbours, as a list">
            <TextArea
              exact
              className="min-h-32 overflow-x-auto whitespace-pre text-sm"
              spellCheck={false}
              value={list}
              onChange={(event) => setList(event.target.value)}
            />
          </Field>
          {problems.length > 0 && (
            <ul role="alert" className="text-sm font-bold">
              {problems.slice(0, 4).map(({ line, problem }) => (
                <li key={line}>
                  Line {line}: {problem}.
                </li>
              ))}
            </ul>
          )}
        </>
      }
      result={
        plan ? (
          <>
            <BigFigure
              value={String(Math.round(lost * 100))}
              unit="% of the rate lost"
              label={
                plan.proven
                  ? 'No choice loses less: proven.'
                  : `None can cost less than ${Math.round((plan.bound / radios.length) * 100)} %.`
              }
            />
            <List framed className="mt-3">
              {plan.choices.map(({ channel, widthMHz }, at) => (
                <li key={at} className="flex flex-wrap gap-x-4 py-1.5">
                  <b className="w-24">Radio {at + 1}</b>
                  <span>
                    channel <b>{channel}</b>, {widthMHz} MHz
                  </span>
                  <span className="text-soft">
                    {Math.round(plan.lost[at]! * 100)} % lost
                    {radarWords[radarMinutes(country, band, channel, widthMHz)]}
                  </span>
                </li>
              ))}
            </List>
          </>
        ) : (
          <p className="text-soft">
            {(country === '' && 'Choose the country.') ||
              unknown?.what ||
              (countProblem || hearProblem
                ? 'Mend what is marked.'
                : 'Reckoning, or this country permits no such channel.')}
          </p>
        )
      }
    >
      <Spectrum
        band={band}
        country={country}
        neighbours={networks}
        own={radios.map(({ id }, at) => ({
          name: id.replace('radio', 'Radio'),
          now: null,
          planned: plan?.choices[at] ?? null
        }))}
      />
    </BenchPage>
  )
}
