import { installs } from '../../record/installs'
import { atBrief, unproven, type Home, type Verdict } from '../rule'

/** That nobody recorded whether a telephone goes through the modem, where one may: a unit of ours takes one or may, or the line is a telephone's. */
export function telephoneNotSaid({ record, units }: Home): Verdict | null {
  const { telephone, accessLine } = record.brief.facts
  const takesOne = units.some(
    ({ unit, model }) => !unit.facts.stayed && (model === null || model.ports.some(({ kind }) => kind === 'telephone'))
  )
  const isOpen = units.length > 0 ? takesOne || accessLine === 'telephone-line' : installs(record)
  if (telephone !== undefined || !isOpen) return null
  return unproven(
    'Whether a telephone goes through the modem is not recorded.',
    'Ask, and say so under Brief.',
    atBrief('telephone')
  )
}
