import { describeProblem, Refusal, type Problem } from '@pasado/core/values/problem'

/** Splits words into options and the rest. @throws Error for an option that is not known */
export function parseWords(
  words: readonly string[],
  flags: readonly string[],
  valued: readonly string[] = []
): { rest: string[]; has: Set<string>; values: Map<string, string> } {
  const rest: string[] = []
  const has = new Set<string>()
  const values = new Map<string, string>()
  for (let at = 0; at < words.length; at++) {
    const word = words[at]!
    if (valued.includes(word)) {
      const value = words[++at]
      if (value === undefined) throw new UsageError(`${word} wants a value behind it`)
      values.set(word, value)
    } else if (flags.includes(word)) has.add(word)
    else if (word.startsWith('--')) throw new UsageError(`there is no option ${word}`)
    else rest.push(word)
  }
  return { rest, has, values }
}

/** Words on the command line that make no sense. */
export class UsageError extends Error {}

/** Tells what is wrong on standard error, a line for each problem. @returns exit status 2 */
export function unreadable(error: unknown): number {
  if (error instanceof Refusal) printProblems(error.problems)
  else console.error(error instanceof Error ? error.message : String(error))
  return 2
}

const MOST_SHOWN = 20

/** Prints problems on standard error, a line each; a file that is wrong everywhere is told so in a few. */
export function printProblems(problems: readonly Problem[]): void {
  for (const problem of problems.slice(0, MOST_SHOWN)) console.error(describeProblem(problem))
  if (problems.length > MOST_SHOWN) console.error(`… and ${problems.length - MOST_SHOWN} more`)
}
