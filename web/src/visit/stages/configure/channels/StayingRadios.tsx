import { v7 as uuidv7 } from 'uuid'
import type { Facts } from '@pasado/core/record/facts'
import { foundOn } from '@pasado/core/radio/permitted'
import { staysName } from '@pasado/core/record/equipment'
import { stayingRadios, type StayingRadio } from '@pasado/core/work/channels/home-channels'
import { useMayWrite } from '../../../session/facts'
import { useVisit } from '../../../session/visit-state'
import { write } from '../../../session/write'
import { FigureSelect } from './FigureSelect'
import { List } from '../../../../ui/List'

const widths = [20, 40, 80, 160] as const

/** On which channels what stays sends: it is left as it is, and the plan keeps out of its way. */
export function StayingRadios() {
  const record = useVisit((state) => state.record)
  const catalogue = useVisit((state) => state.catalogue)
  const radios = stayingRadios(record, catalogue)
  if (radios.length === 0) return null
  return (
    <section aria-label="Channels of what stays" className="mt-4">
      <h3>
        What stays <span className="fine font-normal">left as it is; the plan keeps out of its way</span>
      </h3>
      <List framed className="mt-1">
        {radios.map((radio) => (
          <Row key={`${radio.stays.id} ${radio.band}`} radio={radio} />
        ))}
      </List>
    </section>
  )
}

function Row({ radio: { stays, band, recorded } }: { radio: StayingRadio }) {
  const mayWrite = useMayWrite()
  const country = useVisit((state) => state.record.brief.facts.country)
  const name = staysName(stays)
  // At 2.4 GHz any, whatever ours are to keep to.
  const channels = foundOn(country, band)
  const set = (change: Facts<'radio'>) =>
    write('radio.set', {
      id: recorded?.id ?? uuidv7(),
      set: recorded ? change : { unit: stays.id, band, ...change },
      origin: 'typed'
    })
  return (
    <li className="flex flex-wrap items-center gap-x-4 gap-y-1 py-2">
      <span className="grow basis-40">
        <b>{name}</b>, {band} GHz
      </span>
      <FigureSelect
        label={`Channel of ${name}, ${band} GHz`}
        what="channel"
        className="w-32"
        disabled={!mayWrite}
        value={recorded?.facts.channel}
        from={channels}
        onChoose={(value) => set({ channel: Number(value) })}
      />
      <FigureSelect
        label={`Width of ${name}, ${band} GHz`}
        what="width"
        unit=" MHz"
        className="w-32"
        disabled={!mayWrite}
        value={recorded?.facts.widthMHz}
        from={widths}
        onChoose={(value) => set({ widthMHz: Number(value) as 20 })}
      />
    </li>
  )
}
