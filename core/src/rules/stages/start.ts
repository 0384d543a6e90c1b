import { hasSeen, headsOf } from '../../history/history'
import { proofOf } from '../../history/proof'
import type { Sighting } from '../../record/things/seen'
import { restsOfLamps } from '../../work/prove/rests'
import { dependsOnRole, isGoodFor } from '../../work/units/good-look'
import { wordsOf } from '../../values/plain'
import { lastedTooLong, readLamps } from '../../work/units/unit-lamps'
import { lookWords, sightingWords } from '../../catalogue/look'
import {
  aboutUnit,
  atUnit,
  breaks,
  holds,
  noLonger,
  unproven,
  type Home,
  type Place,
  type Rule,
  type Verdict,
  rule
} from '../rule'
import { eachOnce } from './answered-once'
import { answeredOf } from '../../work/units/run-as-one'
import type { KnownUnit } from '../../work/units/known-unit'
import { laterFigures } from '../../policy/standard'
import { kitRole, kitAdapter } from './kit'
import { firmMinimum, firmSame } from './firmware'
import { placeFinal } from './place'

const atLamp = ({ unit }: KnownUnit): Place => ({ stage: 'start', kind: 'lamp', id: unit.id, field: 'lamp' })
const withLamps = ({ model }: KnownUnit) => model !== null && model.lamps.length > 0

export const startGoodLamp = rule({
  id: 'start-good-lamp',
  name: 'Good lamp',
  stage: 'start',
  level: 'must',
  minutes: 4,
  needs: ['model'],
  statement:
    "The last sighting of every unit's lamps is a good state of its model, or lamps were switched off on request.",
  after: [kitRole, kitAdapter],
  judge: (home) =>
    home.units.filter(withLamps).map((known) => {
      const about = aboutUnit(known)
      if (known.unit.sightings.length === 0)
        return unproven('Its lamps have not been looked at.', 'Look, and log what you see.', atLamp(known), about)
      const [said, ...others] = headsOf(home.history, known.unit.sightings).map((last) =>
        judgeLook(home, lookedBy(home, known, last.seq), last)
      )
      if (others.every(({ outcome }) => outcome === said!.outcome)) return said!
      return unproven(
        'Two looked at its lamps without knowing of each other, and saw it otherwise.',
        'Look once more, and log what you see.',
        atLamp(known),
        about
      )
    })
})

/** A unit as whoever looked at its lamps had it: what others saw or did without their knowing comes before or after, nobody knows. */
function lookedBy({ history }: Home, known: KnownUnit, look: number): KnownUnit {
  const { sightings, events } = known.unit
  const isKnown = ({ seq }: { seq: number }) => hasSeen(history, look, seq)
  if (sightings.every(isKnown) && events.every((event) => isKnown(event) || hasSeen(history, event.seq, look)))
    return known
  return {
    ...known,
    unit: {
      ...known.unit,
      sightings: sightings.filter(isKnown),
      events: events.filter((event) => isKnown(event) || hasSeen(history, event.seq, look))
    }
  }
}

function judgeLook({ record }: Home, known: KnownUnit, last: Sighting): Verdict {
  const about = aboutUnit(known)
  if (
    record.choices.lamp?.answer === 'off' &&
    known.model!.lampsCanBeOff &&
    last.lamps.every((look) => lookWords(look) === 'dark')
  ) {
    return holds('Dark, as the customer asked.', about)
  }
  const reading = readLamps(known.unit, known.model!)
  const seen = sightingWords(last.lamps, known.model!.lamps.length > 1)
  if (reading.candidates.length === 0)
    return noLonger(
      unproven(
        `Seen: ${seen}, and nobody looked since it began anew.`,
        'Look again, and log what you see.',
        atLamp(known),
        about
      )
    )
  if (reading.lastImpossible)
    return unproven(
      `Seen: ${seen}. No state of the model explains that after what came before.`,
      'Look again, or record the restart in between.',
      atLamp(known),
      about
    )
  if (!reading.state)
    return unproven(
      `Seen: ${seen}. That may be ${reading.candidates.map(({ meaning }) => meaning).join(' or ')}.`,
      known.model!.lamps.length > 1
        ? 'Look at the other lamps as well.'
        : 'Wait and look again: what comes next decides.',
      atLamp(known),
      about
    )
  if (dependsOnRole(reading.state) && known.unit.facts.role === undefined && known.unit.facts.mode === undefined)
    return unproven(
      `Seen: ${seen}: ${reading.state.meaning}. Whether that is well here depends on its role, which is not recorded.`,
      'Choose what it is here.',
      atUnit('kit', known.unit, 'role'),
      about
    )
  if (isGoodFor(reading.state, known.unit)) return holds(`Seen: ${seen}: ${reading.state.meaning}.`, about)
  if (reading.state.good)
    return breaks(
      `Seen: ${seen}: ${reading.state.meaning}. That is well in another role than ${wordsOf(known.unit.facts.mode ?? known.unit.facts.role!)}.`,
      'It works as something else than it is here for: set it up in its role, or record the role it has.',
      atLamp(known),
      about
    )
  // A state that the model gives a time is on its way to another; it says nothing either way until that time is over.
  if (reading.state.maxMin !== undefined && !reading.overdue)
    return unproven(`Seen: ${seen}: ${reading.state.meaning}.`, `${reading.state.action}.`, atLamp(known), about)
  return breaks(`Seen: ${seen}: ${reading.state.meaning}.`, `${reading.state.action}.`, atLamp(known), about)
}

export const startFreshLamp = rule({
  id: 'start-fresh-lamp',
  name: 'Lamp seen since',
  stage: 'start',
  level: 'must',
  minutes: 1,
  needs: ['model'],
  statement: "That sighting is later than the unit's last restart, move, update or change of settings.",
  after: [firmMinimum, firmSame, placeFinal],
  judge: (home) =>
    home.units
      .filter((known) => withLamps(known) && known.unit.sightings.length > 0)
      .map((known) => {
        const { changes } = proofOf(home.history, known.unit.sightings, () => restsOfLamps(home, known.unit))!
        const after = changes.find((change) => change.after)
        if (changes.length === 0)
          return holds('Nothing happened to it since its lamps were last looked at.', aboutUnit(known))
        const say = after ? breaks : unproven
        const { message } = after ?? changes[0]!
        return noLonger(say(message, 'Look at its lamps again.', atLamp(known), aboutUnit(known)))
      })
})

export const startInTime = rule({
  id: 'start-in-time',
  name: 'State in time',
  stage: 'start',
  level: 'should',
  minutes: 1,
  sparesUntouched: true,
  needs: ['model'],
  statement: 'No state lasted longer than the model allows.',
  judge: ({ units }) =>
    units
      .filter((known) => withLamps(known) && known.unit.sightings.length > 0)
      .map((known) => {
        const state = lastedTooLong(known.unit, known.model!)
        if (!state) return holds('Every state ended in time.', aboutUnit(known))
        return breaks(
          `${state.meaning} has lasted longer than the ${state.maxMin} min its model allows.`,
          `${state.action}. When it is mended, restart it and look until it is well.`,
          atLamp(known),
          aboutUnit(known)
        )
      })
})

export const startMethodWindow = rule({
  id: 'start-method-window',
  name: 'Pairing window',
  stage: 'start',
  level: 'must',
  minutes: 5,
  needs: ['model', 'method'],
  statement: "Push-button pairing: the second press came within the model's window.",
  judge: ({ units, policy }) =>
    units.flatMap((known): Verdict[] => {
      const { unit, model } = known
      const method = model?.methods.find(({ id }) => id === unit.facts.method)
      // What stood here before was paired at another visit.
      if (method?.kind !== 'push-button' || unit.facts.stayed) return []
      const at = atUnit('start', unit, 'pairing')
      const presses = unit.pairing ?? []
      const second = presses.findLast(({ which }) => which === 'second')
      const first = second && presses.findLast(({ which, seq }) => which === 'first' && seq < second.seq)
      const window = policy.pairWindowS ?? laterFigures.pairWindowS
      if (!second || !first)
        return [
          unproven('Its two presses are not recorded.', 'Press, and tap here with each press.', at, aboutUnit(known))
        ]
      const seconds = Math.round((Date.parse(second.at) - Date.parse(first.at)) / 1000)
      if (seconds < 0)
        return [
          unproven(
            'The clock was set back between its two presses.',
            'Pair it once more, or see by its lamps that it joined.',
            at,
            aboutUnit(known)
          )
        ]
      if (seconds > window)
        return [
          breaks(
            `The second press came ${seconds} s after the first; the window is ${window} s.`,
            'Press both again, the second within the window.',
            at,
            aboutUnit(known)
          )
        ]
      return [holds(`The second press came ${seconds} s after the first.`, aboutUnit(known))]
    })
})

/** What was answered to a prompt of a unit's app: on the unit, else once for all that are run as one with it. */
const promptAnswer = (units: readonly KnownUnit[], known: KnownUnit, prompt: string) =>
  answeredOf(units, known, ({ unit }) => unit.prompts[prompt])?.value

/** Every prompt has an answer: of those that were given without asking only a no stands. */
function judgeAnswered(units: readonly KnownUnit[], known: KnownUnit): Verdict {
  const { prompts } = known.model!
  const unasked = prompts.filter(({ id }) => promptAnswer(units, known, id)!.from === 'default')
  const agreed = unasked.find(({ id }) => promptAnswer(units, known, id)!.answer === 'yes')
  if (agreed)
    return unproven(
      'A prompt was answered with yes, and the customer was not asked.',
      'Ask the customer, and record what was answered.',
      { stage: 'start', kind: 'prompt', id: known.unit.id, field: agreed.id },
      aboutUnit(known)
    )
  const byDefault = unasked.length ? `, ${unasked.length} of them with no, as the company does unasked` : ''
  return holds(`All ${prompts.length} prompts are answered${byDefault}.`, aboutUnit(known))
}

export const startPrompts = rule({
  id: 'start-prompts',
  name: 'Consent prompts',
  stage: 'start',
  level: 'must',
  minutes: 2,
  sparesUntouched: true,
  needs: ['model'],
  statement: 'Every consent prompt of the model has a recorded answer by the customer.',
  judge: (home) =>
    eachOnce(
      home,
      home.units.filter(({ model }) => (model?.prompts.length ?? 0) > 0),
      ({ unit }) => Object.keys(unit.prompts).length > 0,
      (known) => judgePrompts(home.units, known)
    )
})

function judgePrompts(units: readonly KnownUnit[], known: KnownUnit): Verdict {
  const { prompts } = known.model!
  const open = prompts.filter(({ id }) => !promptAnswer(units, known, id))
  if (open.length === 0) return judgeAnswered(units, known)
  return unproven(
    `${open.length} of ${prompts.length} prompts have no answer.`,
    'Ask the customer; no unless told.',
    { stage: 'start', kind: 'prompt', id: known.unit.id, field: open[0]!.id },
    aboutUnit(known)
  )
}

/** Rules of Start up. */
export const startRules: readonly Rule[] = [startGoodLamp, startFreshLamp, startInTime, startMethodWindow, startPrompts]
