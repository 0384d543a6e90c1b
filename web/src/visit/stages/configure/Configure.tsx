import { usePart } from '../../frame/use-part'
import { Tabs } from 'radix-ui'
import { blocks } from '@pasado/core/rules/weigh'
import { AskedRules } from '../../frame/AskedRules'
import { useVisit } from '../../session/visit-state'
import { Addresses } from './addresses/Addresses'
import { ApplyOrder } from './order/ApplyOrder'
import { Channels } from './channels/Channels'
import { Compare } from './compare/Compare'
import { Firmware } from './firmware/Firmware'
import { Logins } from './logins/Logins'
import { Networks } from './wifi/Networks'

const parts = [
  { value: 'addresses', label: 'Addresses', work: Addresses, rules: /^addr-/ },
  { value: 'wifi', label: 'Wi-Fi', work: Networks, rules: /^wifi-(?!pushbutton)/ },
  { value: 'channels', label: 'Channels', work: Channels, rules: /^radio-/ },
  { value: 'logins', label: 'Logins', work: Logins, rules: /^(cred-|wifi-pushbutton)/ },
  { value: 'firmware', label: 'Firmware', work: Firmware, rules: /^firm-/ },
  { value: 'order', label: 'In order', work: ApplyOrder, rules: /^$/ },
  { value: 'compare', label: 'Compare', work: Compare, rules: /^$/ }
] as const

/** Which part of the stage a place of the docket stands in. */
function partOf(at: string | null): string | null {
  if (!at) return null
  const [kind, , field = ''] = at.split('.')
  if (kind === 'answer' && field === 'order') return 'order'
  if (kind === 'network' || field === 'wifi-passphrase') return 'wifi'
  if (kind === 'radio') return 'channels'
  if (kind === 'segment' || kind === 'host' || kind === 'pool' || kind === 'answer') return 'addresses'
  if (/^firmware|^updates$/.test(field)) return 'firmware'
  if (kind === 'unit' || field === 'admin-password') return 'logins'
  return null
}

/** Configure: addresses, names and passwords, logins, firmware. */
export function Configure() {
  const [part, go] = usePart(partOf, 'addresses')
  const findings = useVisit((state) => state.findings)
  return (
    <Tabs.Root value={part} onValueChange={go} className="p-4 lg:p-5">
      <div className="flex flex-wrap items-center gap-x-6 gap-y-1 border-b border-rule">
        <h2 className="text-xl">Configure</h2>
        <Tabs.List aria-label="Parts of Configure" className="flex flex-wrap">
          {parts.map(({ value, label, rules }) => {
            const open = findings.filter(
              (finding) => finding.stage === 'configure' && rules.test(finding.rule) && blocks(finding)
            ).length
            return (
              <Tabs.Trigger
                key={value}
                value={value}
                className="-mb-px min-h-11 border-b-4 border-transparent px-3 data-[state=active]:border-plum data-[state=active]:font-bold"
              >
                {label}
                {open > 0 && <span className="fine"> · {open} open</span>}
              </Tabs.Trigger>
            )
          })}
        </Tabs.List>
      </div>
      {parts.map(({ value, work: Work }) => (
        <Tabs.Content key={value} value={value} className="pt-4" tabIndex={-1}>
          <Work />
        </Tabs.Content>
      ))}
      {part === 'addresses' && (
        <div className="mt-4">
          <AskedRules stage="configure" only={['addr-applied']} />
        </div>
      )}
    </Tabs.Root>
  )
}
