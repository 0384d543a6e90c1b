import type { z } from 'zod'

/** One thing wrong with an input: where, and what to do about it. */
export interface Problem {
  path: readonly (string | number)[]
  message: string
}

/** Thrown where an input is not acceptable. Carries every problem found, each with its path. */
export class Refusal extends Error {
  constructor(readonly problems: readonly Problem[]) {
    super(problems.map(describeProblem).join('\n'))
    this.name = 'Refusal'
  }
}

/** Throws a Refusal with these problems. */
export function refuse(problems: readonly Problem[]): never {
  throw new Refusal(problems)
}

/** Prints a path the way people write it: `walls[2].thicknessMm`; the whole input is `input`. */
export function pathText(path: readonly (string | number)[]): string {
  let text = ''
  for (const part of path) {
    if (typeof part === 'number') text += `[${part}]`
    else if (/^[A-Za-z_$][\w$-]*$/.test(part)) text += text ? `.${part}` : part
    else text += `[${JSON.stringify(part)}]`
  }
  return text || 'input'
}

/** One line for a problem: `path: what is wrong`. */
export function describeProblem(problem: Problem): string {
  return `${pathText(problem.path)}: ${problem.message}`
}

/** Turns what Zod found into problems, one for each unknown field, in words a person can act on. */
export function problemsOf(error: z.core.$ZodError): Problem[] {
  return error.issues.flatMap((issue) => problemsOfIssue(issue, []))
}

function problemsOfIssue(issue: z.core.$ZodIssue, above: readonly (string | number)[]): Problem[] {
  const path = [...above, ...issue.path.map((part) => (typeof part === 'symbol' ? String(part) : part))] as (
    string | number
  )[]
  switch (issue.code) {
    case 'unrecognized_keys':
      return issue.keys.map((key) => ({
        path: [...path, key],
        message: 'is not a field that is known here; leave it out'
      }))
    case 'invalid_type':
      return [
        {
          path,
          message:
            issue.input === undefined && /undefined/.test(issue.message)
              ? `is missing; it must be ${article(issue.expected)}`
              : `must be ${article(issue.expected)}`
        }
      ]
    case 'invalid_value':
      return [
        {
          path,
          message: `must be ${issue.values.length === 1 ? '' : 'one of '}${issue.values.map((value) => String(value)).join(', ')}`
        }
      ]
    case 'too_small':
      return [
        {
          path,
          message: sizeMessage(issue.origin, issue.inclusive ? 'at least' : 'above', issue.minimum, issue.message)
        }
      ]
    case 'too_big':
      return [
        {
          path,
          message: sizeMessage(issue.origin, issue.inclusive ? 'at most' : 'below', issue.maximum, issue.message)
        }
      ]
    case 'invalid_union':
      if (issue.errors.length === 0) return [{ path, message: 'is not a kind that is known here' }]
      return issue.errors.toSorted((a, b) => a.length - b.length)[0]!.flatMap((inner) => problemsOfIssue(inner, path))
    case 'invalid_format':
      return [
        {
          path,
          message: /^Invalid/.test(issue.message)
            ? (formatWords[issue.format] ?? 'is not in the form it must have')
            : issue.message
        }
      ]
    default:
      return [{ path, message: issue.message }]
  }
}

/** What a text of each form must be, in words. */
const formatWords: Record<string, string> = {
  uuid: 'must be a UUID',
  datetime: 'must be a time with its offset, such as 2026-01-05T09:00:00+01:00',
  date: 'must be a day, such as 2026-01-05',
  base64: 'must be base64'
}

function sizeMessage(origin: string, word: string, bound: number | bigint, given: string): string {
  if (!/^Too (small|big)/.test(given)) return given
  const unit = ({ string: ' characters long', array: ' items long' } as Record<string, string>)[origin] ?? ''
  return `must be ${word} ${bound}${unit}`
}

function article(type: string): string {
  if (type === 'int') return 'a whole number'
  if (type === 'number') return 'a number'
  if (type === 'boolean') return 'true or false'
  if (type === 'string') return 'text'
  if (type === 'array') return 'a list'
  return /^[aeio]/.test(type) ? `an ${type}` : `a ${type}`
}
