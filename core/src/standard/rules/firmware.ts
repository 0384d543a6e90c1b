import { compareVersions } from '../../firmware/version'
import { groupBy } from '../../text/group-by'
import { aboutUnit, atUnit, breaks, holds, listed, unproven, type KnownUnit, type Rule } from '../rule'

const withFirmware = ({ model }: KnownUnit) => model !== null && model.firmware.releases.length > 0

/** Rules of Configure about firmware. */
export const firmwareRules: Rule[] = [
  {
    id: 'firm-recorded', stage: 'configure', level: 'must', says: 'Version before and after on every unit.',
    judge: ({ units }) =>
      units.filter(withFirmware).map((known) => {
        const { firmwareBefore, firmwareAfter } = known.unit.facts
        if (firmwareBefore !== undefined && firmwareAfter !== undefined) return holds(`${firmwareBefore} before, ${firmwareAfter} after.`, aboutUnit(known))
        const field = firmwareBefore === undefined ? 'firmwareBefore' : 'firmwareAfter'
        return unproven(`The version ${field === 'firmwareBefore' ? 'before' : 'after'} is not recorded.`, 'Read it from the unit.', atUnit('configure', known.unit, field), aboutUnit(known))
      })
  },
  {
    id: 'firm-minimum', stage: 'configure', level: 'must', says: 'Version after at or above the approved minimum, none withdrawn.',
    judge: ({ units }) =>
      units.filter((known) => withFirmware(known) && known.unit.facts.firmwareAfter !== undefined).map((known) => {
        const version = known.unit.facts.firmwareAfter!
        const { minimum, releases } = known.model!.firmware
        const at = atUnit('configure', known.unit, 'firmwareAfter')
        const release = releases.find((one) => compareVersions(one.version, version) === 0)
        if (release?.withdrawn) return breaks(`${version} was withdrawn.`, `Install ${minimum} or newer.`, at, aboutUnit(known))
        if (compareVersions(version, minimum) < 0) return breaks(`${version} is below the approved minimum ${minimum}.`, `Update to ${minimum} or newer.`, at, aboutUnit(known))
        if (!release) return unproven(`${version} is not in the catalogue.`, 'Read it again, or ask the lead to add it.', at, aboutUnit(known))
        return holds(`${version}; the minimum is ${minimum}.`, aboutUnit(known))
      })
  },
  {
    id: 'firm-same', stage: 'configure', level: 'must', says: 'All members of one mesh family and model on one version.',
    judge: ({ units }) => {
      const members = units.filter((known) => known.model?.family && withFirmware(known) && known.unit.facts.firmwareAfter !== undefined)
      return [...groupBy(members, ({ model }) => model!.id).values()].filter((group) => group.length > 1).map((group) => {
        const versions = [...new Set(group.map(({ unit }) => unit.facts.firmwareAfter!.toLowerCase().replace(/^v/, '')))]
        if (versions.length === 1) return holds(`${group.length} × ${group[0]!.model!.name} on ${versions[0]}.`)
        const oldest = group.toSorted((a, b) => compareVersions(a.unit.facts.firmwareAfter!, b.unit.facts.firmwareAfter!))[0]!
        return breaks(`${group[0]!.model!.name} run different versions: ${listed(versions)}.`, `Update ${oldest.name}.`, atUnit('configure', oldest.unit, 'firmwareAfter'), aboutUnit(oldest))
      })
    }
  },
  {
    id: 'firm-updates', stage: 'configure', level: 'must', says: 'Automatic or managed updates: chosen, recorded, by the school in force.',
    judge: ({ units, policy }) =>
      units.filter(({ model }) => model !== null && model.updates !== 'none').map((known) => {
        const { updates } = known.unit.facts
        const at = atUnit('configure', known.unit, 'updates')
        if (updates === undefined) return unproven('How it is updated is not recorded.', 'Choose automatic or managed.', at, aboutUnit(known))
        const can = known.model!.updates
        if (can !== 'either' && can !== updates) return breaks(`${known.model!.name} can only be ${can}.`, `Choose ${can}.`, at, aboutUnit(known))
        if (can === 'either' && updates !== policy.updates) return breaks(`${updates}; the school in force is ${policy.updates}.`, `Choose ${policy.updates}, or have it waived.`, at, aboutUnit(known))
        return holds(`Updates ${updates}.`, aboutUnit(known))
      })
  }
]
