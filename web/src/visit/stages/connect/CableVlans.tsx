import { standing, type Cable } from '@pasado/core/record/record'
import { useMayWrite } from '../../session/facts'
import { placeKey } from '../../session/place'
import { useVisit } from '../../session/visit-state'
import { write } from '../../session/write'

/** Which VLANs a cable carries; asked where a segment of the home has one. */
export function CableVlans({ cable: { id, facts } }: { cable: Cable }) {
  const segments = standing(useVisit((state) => state.record.segments)).flatMap(({ facts: { name, cidr, vlan } }) =>
    vlan === undefined ? [] : [{ name: name ?? cidr ?? 'segment', vlan }]
  )
  if (segments.length === 0) return null
  const { tagged, untagged } = facts
  const toggled = (vlan: number) =>
    tagged?.includes(vlan) ? tagged.filter((other) => other !== vlan) : [...(tagged ?? []), vlan].sort((a, b) => a - b)
  return (
    <div data-place={placeKey({ kind: 'cable', id, field: 'tagged' })} className="flex flex-col gap-3">
      <Chips
        label="VLANs on it, tagged at both ports"
        chips={[
          ...segments.map(({ name, vlan }) => ({
            label: `${vlan} ${name}`,
            isOn: tagged?.includes(vlan) ?? false,
            set: { tagged: toggled(vlan) }
          })),
          { label: 'none', isOn: tagged?.length === 0, set: { tagged: tagged?.length === 0 ? null : [] } }
        ]}
        cable={id}
      />
      <Chips
        label="Untagged on it"
        chips={[
          ...segments.map(({ name, vlan }) => ({
            label: `${vlan} ${name}`,
            isOn: untagged === vlan,
            set: { untagged: untagged === vlan ? null : vlan }
          })),
          { label: 'no VLAN', isOn: untagged === undefined, set: { untagged: null } }
        ]}
        cable={id}
      />
    </div>
  )
}

interface Chip {
  label: string
  isOn: boolean
  set: { tagged?: number[] | null; untagged?: number | null }
}

function Chips({ label, chips, cable }: { label: string; chips: readonly Chip[]; cable: string }) {
  const mayWrite = useMayWrite()
  return (
    <div role="group" aria-label={label}>
      <p className="label">{label}</p>
      <div className="mt-1 flex flex-wrap gap-2">
        {chips.map((chip) => (
          <button
            key={chip.label}
            type="button"
            className="chip"
            data-state={chip.isOn ? 'on' : 'off'}
            aria-pressed={chip.isOn}
            disabled={!mayWrite}
            onClick={() => write('cable.set', { id: cable, set: chip.set, origin: 'measured' })}
          >
            {chip.label}
          </button>
        ))}
      </div>
    </div>
  )
}
