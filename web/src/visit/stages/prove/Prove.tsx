import { usePart } from '../../frame/use-part'
import { Tabs } from 'radix-ui'
import { blocks } from '@pasado/core/rules/weigh'
import { beginSearch, FindFault } from './FindFault'
import { HomeProof } from './HomeProof'
import { RoomsProof } from './RoomsProof'
import { UnitsProof } from './UnitsProof'
import { useVisit } from '../../session/visit-state'

const parts = [
  { value: 'rooms', label: 'Rooms', rules: /^prove-(source|rooms)$/ },
  { value: 'units', label: 'Units', rules: /^prove-(path|after-move|wired)$/ },
  { value: 'home', label: 'Home', rules: /^prove-(names-gone|rejoined|voice|settle)$/ },
  { value: 'fault', label: 'Find the fault', rules: /^$/ }
] as const

/** Which part of the stage a place of the docket stands in. */
function partOf(at: string | null): string | null {
  if (!at) return null
  const [kind, , field = ''] = at.split('.')
  if (kind === 'measurement' || kind === 'room') return 'rooms'
  if (kind === 'device' || kind === 'answer' || field === 'gone') return 'home'
  return kind === 'unit' ? 'units' : null
}

/** Prove: the source and every room, each unit, the home as a whole; and finding the fault where something falls short. */
export function Prove() {
  const [part, go] = usePart(partOf, 'rooms')
  const findings = useVisit((state) => state.findings)
  const searching = useVisit((state) => Object.values(state.record.searches ?? {}).some(({ found }) => found === null))
  return (
    <Tabs.Root value={part} onValueChange={go} className="p-4 lg:p-5">
      <div className="flex flex-wrap items-center gap-x-6 gap-y-1 border-b border-rule">
        <h2 className="text-xl">Prove</h2>
        <Tabs.List aria-label="Parts of Prove" className="flex flex-wrap">
          {parts.map(({ value, label, rules }) => {
            const open = findings.filter((finding) => rules.test(finding.rule) && blocks(finding)).length
            return (
              <Tabs.Trigger
                key={value}
                value={value}
                className="-mb-px min-h-11 border-b-4 border-transparent px-3 data-[state=active]:border-plum data-[state=active]:font-bold"
              >
                {label}
                {open > 0 && <span className="fine"> · {open} open</span>}
                {value === 'fault' && searching && <span className="fine"> · looking</span>}
              </Tabs.Trigger>
            )
          })}
        </Tabs.List>
      </div>
      <Tabs.Content value="rooms" className="pt-4" tabIndex={-1}>
        <RoomsProof
          onFault={(about) => {
            if (!searching) beginSearch(about)
            go('fault')
          }}
        />
      </Tabs.Content>
      <Tabs.Content value="units" className="pt-4" tabIndex={-1}>
        <UnitsProof />
      </Tabs.Content>
      <Tabs.Content value="home" className="pt-4" tabIndex={-1}>
        <HomeProof />
      </Tabs.Content>
      <Tabs.Content value="fault" className="pt-4" tabIndex={-1}>
        <FindFault />
      </Tabs.Content>
    </Tabs.Root>
  )
}
