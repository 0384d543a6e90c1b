import { useMemo } from 'react'
import { laterFigures } from '@pasado/core/policy/standard'
import { bottleneckOf } from '@pasado/core/work/prove/bottleneck'
import { sourceOf, type Measured } from '@pasado/core/work/prove/rooms'
import type { UnknownLink } from '@pasado/core/work/prove/way'
import { List } from '../../../ui/List'
import { TextFact } from '../../fields/FactField'
import { useFolded } from '../../session/facts'
import { useVisit } from '../../session/visit-state'

const readingWords = {
  hopDbm: { label: 'Signal of its hop', unit: 'dBm' },
  mainsMbps: { label: 'Rate between the adapters', unit: 'Mbit/s' }
} as const

/** What should arrive in a room: the slowest link on its way, how much of it arrived, each link with what it is reckoned from, and the reading that is wanting. */
export function OnItsWay({ best, holds }: { best: Measured; holds: boolean }) {
  const folded = useFolded()
  const catalogue = useVisit((state) => state.catalogue)
  const reachesDbm = useVisit((state) => state.standard.policy.roomDbm) ?? laterFigures.roomDbm
  const way = useMemo(
    () => bottleneckOf(folded, catalogue, best, sourceOf(folded, catalogue), reachesDbm),
    [folded, catalogue, best, reachesDbm]
  )
  if (!way) return null
  const { links, unknown, expectedMbps, finding } = way
  const [first] = unknown
  const arrived = best.down && unknown.length === 0 && best.down.median <= expectedMbps ? best.down.median : null
  return (
    <div className="text-sm">
      <p>
        <span className="text-soft">
          On its way the slowest {unknown.length > 0 ? 'that is known ' : ''}is {links[0]!.name},{' '}
          {Math.round(expectedMbps)} Mbit/s {links[0]!.from}
          {arrived !== null && `: ${Math.round((100 * arrived) / expectedMbps)} % of it arrived`}.
          {unknown.length > 0 && ` Not known: ${unknown.map(({ name }) => name).join(', ')}.`}
        </span>{' '}
        {finding && !holds && <b>{finding}</b>}
      </p>
      {first && !holds && <Wanted reading={first} />}
      <details>
        <summary className="min-h-11 py-2">The way, link by link</summary>
        <List className="mb-1">
          {way.way.map(({ name, mbps, from, because }) => (
            <li key={name} className="py-1">
              <b>{Math.round(mbps)} Mbit/s</b> {name}, {from}: <span className="text-soft">{because}.</span>
            </li>
          ))}
          {unknown.map(({ name, read }) => (
            <li key={name} className="py-1">
              <b>not known</b> {name}: <span className="text-soft">{read}</span>
            </li>
          ))}
        </List>
        {first && holds && <Wanted reading={first} />}
      </details>
    </div>
  )
}

/** The one reading that would tell more, with its field where it has one. */
function Wanted({ reading: { read, field } }: { reading: UnknownLink }) {
  return (
    <div className="my-1">
      <p>{read}</p>
      {field && (
        <TextFact kind="unit" id={field.unit} field={field.field} type="number" exact {...readingWords[field.field]} />
      )}
    </div>
  )
}
