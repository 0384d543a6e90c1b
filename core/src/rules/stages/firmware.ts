import { withFirmware } from '../../work/units/known-unit'
import { inKnownOrder, knownOrder, newestRelease, orderUnknown, releaseOf } from '../../catalogue/firmware-order'
import { eachOnce, hasOwnFact } from './answered-once'
import { factOf } from '../../work/units/run-as-one'
import { versionKey } from '../../values/version'
import { groupBy } from '../../values/group-by'
import { aboutUnit, atUnit, breaks, holds, unproven, type Rule, rule } from '../rule'
import { listed } from '../../values/list'
import type { KnownUnit } from '../../work/units/known-unit'

export const firmRecorded = rule({
  id: 'firm-recorded',
  name: 'Firmware recorded',
  stage: 'configure',
  level: 'must',
  minutes: 1,
  sparesUntouched: true,
  needs: ['model'],
  statement: 'Version before and after on every unit.',
  judge: ({ units }) =>
    units.filter(withFirmware).map((known) => {
      const { firmwareBefore, firmwareAfter } = known.unit.facts
      if (firmwareBefore !== undefined && firmwareAfter !== undefined)
        return holds(`${firmwareBefore} before, ${firmwareAfter} after.`, aboutUnit(known))
      const field = firmwareBefore === undefined ? 'firmwareBefore' : 'firmwareAfter'
      return unproven(
        `The version ${field === 'firmwareBefore' ? 'before' : 'after'} is not recorded.`,
        'Read it from the unit.',
        atUnit('configure', known.unit, field),
        aboutUnit(known)
      )
    })
})

export const firmMinimum = rule({
  id: 'firm-minimum',
  name: 'Firmware approved',
  stage: 'configure',
  level: 'must',
  minutes: 10,
  needs: ['model', 'firmwareAfter'],
  statement: 'Version after at or above the approved minimum, none withdrawn.',
  judge: ({ units }) =>
    units
      .filter((known) => withFirmware(known) && known.unit.facts.firmwareAfter !== undefined)
      .map((known) => {
        const version = known.unit.facts.firmwareAfter!
        const { minimum, releases } = known.model!.firmware
        const at = atUnit('configure', known.unit, 'firmwareAfter')
        const release = releaseOf(releases, version)
        const about = aboutUnit(known)
        const better = newestRelease(releases)
        const to =
          better &&
          ['same', 'newer'].includes(knownOrder(better.version, minimum, releases)) &&
          knownOrder(better.version, version, releases) === 'newer'
            ? `Install ${better.version}.`
            : 'Ask the lead which version to install.'
        if (release?.withdrawn) return breaks(`${version} was withdrawn.`, to, at, about)
        const order = knownOrder(version, minimum, releases)
        if (order === 'older') return breaks(`${version} is below the approved minimum ${minimum}.`, to, at, about)
        if (order === 'unknown')
          return unproven(
            `${orderUnknown(version, minimum)}, and the approved minimum is ${minimum}.`,
            'Look for its date of release, and ask the lead to add it to the catalogue.',
            at,
            about
          )
        if (!release)
          return unproven(`${version} is not in the catalogue.`, 'Read it again, or ask the lead to add it.', at, about)
        return holds(`${version}; the minimum is ${minimum}.`, about)
      })
})

export const firmSame = rule({
  id: 'firm-same',
  name: 'Same firmware',
  stage: 'configure',
  level: 'must',
  minutes: 10,
  needs: ['model'],
  statement: 'All members of one mesh family and model on one version.',
  judge: ({ units }) => {
    const members = units.filter((known) => known.model?.family && withFirmware(known))
    return [...groupBy(members, ({ model }) => model!.id).values()]
      .filter((group) => group.length > 1)
      .map((group) => {
        const unread = group.find(({ unit }) => unit.facts.firmwareAfter === undefined)
        if (unread)
          return unproven(
            `The version that ${unread.name} runs is not recorded: whether it is that of the others is not known.`,
            'Read it off its page or its app.',
            atUnit('configure', unread.unit, 'firmwareAfter'),
            aboutUnit(unread)
          )
        const versions = [
          ...new Map(
            group.map(({ unit }) => [versionKey(unit.facts.firmwareAfter!), unit.facts.firmwareAfter!])
          ).values()
        ]
        const { name, firmware } = group[0]!.model!
        if (versions.length === 1) return holds(`${group.length} × ${name} on ${versions[0]}.`)
        const [oldest, next] = group.toSorted((a, b) =>
          inKnownOrder(firmware.releases)(a.unit.facts.firmwareAfter!, b.unit.facts.firmwareAfter!)
        ) as [KnownUnit, KnownUnit]
        const isOldest = group.every((other) =>
          ['older', 'same'].includes(
            knownOrder(oldest.unit.facts.firmwareAfter!, other.unit.facts.firmwareAfter!, firmware.releases)
          )
        )
        return breaks(
          `${name} run different versions: ${listed(versions)}.`,
          isOldest
            ? `Update ${oldest.name}.`
            : `${orderUnknown(oldest.unit.facts.firmwareAfter!, next.unit.facts.firmwareAfter!)}: look which, and bring them to one.`,
          atUnit('configure', oldest.unit, 'firmwareAfter'),
          aboutUnit(oldest)
        )
      })
  }
})

export const firmUpdates = rule({
  id: 'firm-updates',
  name: 'Updates',
  stage: 'configure',
  level: 'must',
  minutes: 1,
  sparesUntouched: true,
  needs: ['model'],
  statement: 'Automatic or managed updates: chosen, recorded, by the school in force.',
  judge: (home) =>
    eachOnce(
      home,
      home.units.filter(({ model }) => model !== null && model.updates !== 'none'),
      hasOwnFact('updates'),
      (known) => {
        const { units, policy } = home
        const { value: updates, with: whose } = factOf(units, known, 'updates')
        const at = atUnit('configure', known.unit, 'updates')
        if (updates === undefined)
          return unproven('How it is updated is not recorded.', 'Choose automatic or managed.', at, aboutUnit(known))
        const can = known.model!.updates
        if (can !== 'either' && can !== updates)
          return breaks(`${known.model!.name} can only be ${can}.`, `Choose ${can}.`, at, aboutUnit(known))
        if (can === 'either' && updates !== policy.updates)
          return breaks(
            `${updates}; the school in force is ${policy.updates}.`,
            `Choose ${policy.updates}, or have it waived.`,
            at,
            aboutUnit(known)
          )
        return holds(`Updates ${updates}${whose}.`, aboutUnit(known))
      }
    )
})

/** Rules of Configure about firmware. */
export const firmwareRules: readonly Rule[] = [firmRecorded, firmMinimum, firmSame, firmUpdates]
