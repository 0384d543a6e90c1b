import { entriesOf } from '../../history/history'
import type { Placed } from '../../record/entry'
import { isCarriedOver } from '../../record/carry-over'
import { standing } from '../../record/record'
import { atBrief, holds, rule, unproven, type Home } from '../rule'

/** Kinds of lines that tell of work at the home; what only prepares a visit or speaks of it is none. */
const tellOfWork: ReadonlySet<string> = new Set([
  'unit.set',
  'unit.event',
  'lamp.seen',
  'method.step',
  'pairing.pressed',
  'path.seen',
  'segment.set',
  'pool.set',
  'host.set',
  'network.set',
  'radio.set',
  'cable.set',
  'fitting.set',
  'device.set',
  'measurement.set',
  'secret.kept',
  'fault.found'
])

/** Whether something was set, done or measured in this visit itself. */
function somethingWasDone({ record, history }: Home): boolean {
  const lines = entriesOf(history)
  // What this visit brought and took away again is no work at the home.
  const cameAndWent = new Set(
    Object.values(record.units)
      .filter(
        ({ addedSeq, removedSeq }) =>
          removedSeq !== null && !isCarriedOver(history.lines.get(addedSeq)!.entry, lines[0])
      )
      .map(({ id }) => id)
  )
  const isOfOne = ({ body }: Placed) => {
    const { id, unit } = body as { id?: string; unit?: string }
    return cameAndWent.has(unit ?? id ?? '')
  }
  return lines.some(
    (line) =>
      // What was taken out of the home: a room that is no longer listed is no work.
      (tellOfWork.has(line.kind) || (line.kind === 'thing.removed' && line.body.thing === 'unit')) &&
      !isCarriedOver(line, lines[0]) &&
      !isOfOne(line)
  )
}

export const briefScope = rule({
  id: 'brief-scope',
  name: 'What was done',
  stage: 'brief',
  level: 'must',
  minutes: 1,
  statement:
    'Something was installed, changed, measured or found: an installation has units, a fault has a finding; or the visit says why not.',
  judge: (home) => {
    const { facts } = home.record.brief
    const why = facts.noUnitReason
    if (why !== undefined) return [holds(`Nothing was installed, because: ${why}`)]
    const open = (evidence: string, remedy: string) => [unproven(evidence, remedy, atBrief('noUnitReason'))]
    if (facts.reason === 'fault')
      return Object.values(home.record.searches ?? {}).some(({ found }) => found !== null)
        ? [holds('The fault that was looked for was found, and how it ended is recorded.')]
        : open('What the fault was is not recorded.', 'Look for it under Prove; or say here why nothing was found.')
    const brought = standing(home.record.units).filter(({ facts: { stayed } }) => !stayed)
    if (brought.length > 0) return [holds(`${brought.length} ${brought.length === 1 ? 'unit' : 'units'} installed.`)]
    if (facts.reason === undefined || facts.reason === 'new')
      return open('No unit is recorded that was installed.', 'Add it under Kit; or say here why nothing was installed.')
    return somethingWasDone(home)
      ? [holds('What was here before was changed or measured.')]
      : open('Nothing was installed, changed or measured yet.', 'Record what was done; or say here why nothing was.')
  }
})
