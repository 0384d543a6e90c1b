import { z } from 'zod'
import { refuse } from '../values/problem'
import { compareVersions, versionProblem } from '../values/version'

const version = z.string().superRefine((text, context) => {
  const problem = versionProblem(text)
  if (problem) context.addIssue({ code: 'custom', message: problem })
})

/** Input of `firmware-path`. */
export const firmwarePathInput = z.strictObject({
  current: version,
  releases: z.array(z.strictObject({ version, needs: version.optional(), withdrawn: z.boolean().optional() })),
  minimum: version.optional()
})
export type FirmwarePathInput = z.infer<typeof firmwarePathInput>

export const firmwarePathOutput = z.strictObject({
  path: z.array(z.string()),
  reachesMinimum: z.boolean(),
  latest: z.string().nullable()
})
export type FirmwarePath = z.infer<typeof firmwarePathOutput>

interface Step {
  version: string
  /** How many of the steps (the first is `current`) are too old for it to install from. */
  tooOld: number
}

/**
 * The shortest chain of installs from `current` to the newest release that can be reached and is not withdrawn; of two
 * of the same length the one with the newer steps.
 * @param compare by which order; the contract's, unless more is known of the releases
 * @throws Refusal where two releases compare equal
 */
export function firmwarePath(
  { current, releases, minimum }: FirmwarePathInput,
  compare = compareVersions
): FirmwarePath {
  const sorted = releases.map((release, index) => ({ ...release, index })).sort((a, b) => compare(a.version, b.version))
  const twin = sorted.findIndex(
    (release, at) => at > 0 && compareVersions(sorted[at - 1]!.version, release.version) === 0
  )
  if (twin > 0)
    refuse([
      {
        path: ['releases', sorted[twin]!.index, 'version'],
        message: `is the same version as ${sorted[twin - 1]!.version}`
      }
    ])
  const offered = sorted.filter(({ withdrawn }) => !withdrawn)
  const newer = offered.filter((release) => compare(release.version, current) > 0)
  const versions = [current, ...newer.map((release) => release.version)]
  const steps: Step[] = [
    { version: current, tooOld: 0 },
    ...newer.map((release) => ({
      version: release.version,
      tooOld: release.needs === undefined ? 0 : olderThan(versions, release.needs, compare)
    }))
  ]
  const path = shortest(steps, goalOf(steps))
  const end = path.at(-1) ?? current
  return {
    path,
    reachesMinimum: minimum === undefined || compare(end, minimum) >= 0,
    latest: offered.at(-1)?.version ?? null
  }
}

/** How many of some versions in ascending order are older than another. */
function olderThan(versions: readonly string[], than: string, compare: typeof compareVersions): number {
  let low = 0
  let high = versions.length
  while (low < high) {
    const middle = (low + high) >> 1
    if (compare(versions[middle]!, than) < 0) low = middle + 1
    else high = middle
  }
  return low
}

/** The newest step that can be reached: each from some older step that is new enough. */
function goalOf(steps: readonly Step[]): number {
  let newestReached = 0
  for (let at = 1; at < steps.length; at++) if (newestReached >= steps[at]!.tooOld) newestReached = at
  return newestReached
}

function shortest(steps: readonly Step[], goal: number): string[] {
  // How many installs are left from each step to the goal, found from the goal downward.
  const left = new Array<number>(steps.length).fill(Infinity)
  left[goal] = 0
  for (let to = goal; to > 0; to--) {
    if (left[to] === Infinity) continue
    for (let from = steps[to]!.tooOld; from < to; from++) left[from] = Math.min(left[from]!, left[to]! + 1)
  }
  const path: string[] = []
  for (let at = 0; at < goal;) {
    let next = goal
    while (!(left[next] === left[at]! - 1 && at >= steps[next]!.tooOld)) next--
    path.push(steps[next]!.version)
    at = next
  }
  return path
}
