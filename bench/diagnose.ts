import { writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { catalogueOf } from '@pasado/core/catalogue/model'
import { believe, nextStep, SURE, type Observed } from '@pasado/core/work/diagnose/belief'
import { causeOf, type CauseId } from '@pasado/core/work/diagnose/causes'
import { mendedId, observationOf, observations } from '@pasado/core/work/diagnose/observations'
import { playHouse } from '@pasado/core/house/house'
import { observeAll } from '@pasado/core/house/observed'
import { medianOf } from '@pasado/core/values/median'
import { seededRandom } from '@pasado/core/values/random'
import { faultyHouse, plantable } from '@pasado/demo/faulty-houses'
import { demoModels } from '@pasado/demo/models/all'

/** How a search ended: the cause it came to, after how many steps and minutes. */
export interface SearchEnd {
  found: CauseId
  steps: number
  minutes: number
}

const MOST_STEPS = 60
/** In a second round so many answers are wrong. */
const WRONG = 0.05

/** A robot that answers truthfully from what holds in a house, and mends what it is told to. */
export function searchBy(
  truth: Observed,
  cause: CauseId,
  next: (observed: Observed) => ReturnType<typeof nextStep>
): SearchEnd {
  const observed: Observed = {}
  let [steps, minutes] = [0, 0]
  for (; steps < MOST_STEPS; steps++) {
    const step = next(observed)
    if (step.do === 'test') {
      observed[step.test.observation.id] = truth[step.test.observation.id]!
      minutes += step.test.observation.minutes
    } else if (step.do === 'done') return { found: step.suspect.cause.id, steps, minutes }
    else {
      const { id, remedyMin } = step.suspect.cause
      minutes += remedyMin
      observed[mendedId(id)] = id === cause ? 'helped' : 'not'
      if (id === cause) return { found: id, steps: steps + 1, minutes }
    }
  }
  return { found: believe(observed).suspects[0]!.cause.id, steps, minutes }
}

/** The tests in a fixed order, the shortest first, under the same rule of when to mend. */
export function inFixedOrder(offered: ReadonlySet<string>) {
  const ordered = [...observations]
    .sort((a, b) => a.minutes - b.minutes || a.order - b.order)
    .filter(({ id }) => offered.has(id))
  return (observed: Observed): ReturnType<typeof nextStep> => {
    const left = believe(observed, offered).suspects.filter(({ cause }) => observed[mendedId(cause.id)] !== 'not')
    const open = ordered.find(({ id }) => observed[id] === undefined)
    if (open && !(left[0]!.probability >= SURE))
      return { do: 'test', test: { observation: open, bits: 0, perMinute: 0 } }
    return { do: 'mend', suspect: left[0]! }
  }
}

if (process.argv[1]?.endsWith('diagnose.ts')) {
  const houses = Number(process.argv[2] ?? 12)
  const catalogue = catalogueOf(demoModels)
  const rows: string[] = []
  const all = { ours: [] as SearchEnd[], fixed: [] as SearchEnd[], first: 0, firstThough: 0, foundThough: 0, count: 0 }
  for (const cause of plantable) {
    const ours: SearchEnd[] = []
    const fixed: SearchEnd[] = []
    let first = 0
    for (let seed = 1; seed <= houses; seed++) {
      const { definition, actions, complaint } = faultyHouse(cause, seed)
      const truth = observeAll(playHouse(definition, actions, catalogue), complaint)
      const offered = new Set(Object.keys(truth))
      let mends = 0
      const mine = searchBy(truth, cause, (observed) => {
        const step = nextStep(observed, offered)
        if (step.do === 'mend') mends++
        return step
      })
      if (mine.found === cause && mends === 1) first++
      ours.push(mine)
      fixed.push(searchBy(truth, cause, inFixedOrder(offered)))
    }
    all.ours.push(...ours)
    all.fixed.push(...fixed)
    all.first += first
    all.count += houses
    const median = (ends: SearchEnd[], of: 'steps' | 'minutes') => medianOf(ends.map((end) => end[of]))
    for (let seed = 1; seed <= houses; seed++) {
      const { definition, actions, complaint } = faultyHouse(cause, seed)
      const truth = observeAll(playHouse(definition, actions, catalogue), complaint)
      const random = seededRandom(seed * 131 + plantable.indexOf(cause))
      const told: Observed = Object.fromEntries(
        Object.entries(truth).map(([id, answer]) => {
          const others = observationOf(id)!.answers.filter((candidate) => candidate.id !== answer)
          return [id, random() < WRONG ? others[Math.floor(random() * others.length)]!.id : answer]
        })
      )
      let mends = 0
      const end = searchBy(told, cause, (observed) => {
        const step = nextStep(observed, new Set(Object.keys(told)))
        if (step.do === 'mend') mends++
        return step
      })
      if (end.found === cause && mends === 1) all.firstThough++
      if (end.found === cause) all.foundThough++
    }
    rows.push(
      `| ${causeOf(cause).name} | ${first} of ${houses} | ${median(ours, 'steps')} | ${median(ours, 'minutes').toFixed(1)} | ${median(fixed, 'steps')} | ${median(fixed, 'minutes').toFixed(1)} |`
    )
  }
  const minutes = (ends: SearchEnd[]) => medianOf(ends.map((end) => end.minutes))
  const steps = (ends: SearchEnd[]) => medianOf(ends.map((end) => end.steps))
  const share = (100 * all.first) / all.count
  const summary = `Of ${all.count} houses with a planted fault the first cause that was mended was the right one in ${share.toFixed(1)} %. Median: ${steps(all.ours)} steps and ${minutes(all.ours).toFixed(1)} minutes, the mend included; in the fixed order ${steps(all.fixed)} steps and ${minutes(all.fixed).toFixed(1)} minutes, ${(minutes(all.ours) / minutes(all.fixed)).toFixed(2)} of it. With one answer in twenty wrong the first mend was right in ${((100 * all.firstThough) / all.count).toFixed(1)} %, and the fault was found in the end in ${((100 * all.foundThough) / all.count).toFixed(1)} %.`
  console.log(`${rows.join('\n')}\n\n${summary}`)
  await writeFile(
    join(import.meta.dirname, '../docs/diagnosis.md'),
    `# Finding the fault: how well it does\n\nMade by \`npm run bench:diagnose\`. In each simulated house one fault is planted; a robot answers every question truthfully from the house and mends what it is told to. *Right* counts the houses in which the first cause that was mended was the planted one. The fixed order takes the same tests, those that take the fewest minutes by the table first, with the same table and the same share at which a cause is mended. The houses answer by the book that the table is from: at real homes it will do less well. Minutes are the table's own, mending included.\n\n| fault | right at once | steps | minutes | steps, fixed order | minutes, fixed order |\n|---|---|---|---|---|---|\n${rows.join('\n')}\n\n${summary}\n`
  )
}
