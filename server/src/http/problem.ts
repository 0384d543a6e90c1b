import { pathText, type Problem as FieldProblem } from '@pasado/core/values/problem'

/** One field that is not acceptable: where it stands and how to mend it. */
export interface FieldError {
  /** JSON Pointer (RFC 6901) to the field. */
  pointer: string
  field: string
  detail: string
}

/** An error that is the caller's to know, sent as a problem document (RFC 9457). */
export class HttpProblem extends Error {
  constructor(
    readonly status: number,
    readonly type: string,
    readonly title: string,
    readonly errors: FieldError[] = [],
    readonly extra: Record<string, unknown> = {}
  ) {
    super(title)
  }

  /** The document's members. */
  toDocument(): Record<string, unknown> {
    return {
      type: `urn:pasado:problem:${this.type}`,
      title: this.title,
      status: this.status,
      ...this.extra,
      ...(this.errors.length
        ? { detail: this.errors.map((one) => `${one.field}: ${one.detail}`).join('; '), errors: this.errors }
        : {})
    }
  }
}

/** Turns problems with paths into the fields of a problem document. */
export function fieldErrors(problems: readonly FieldProblem[], above: readonly (string | number)[] = []): FieldError[] {
  return problems.map(({ path, message }) => {
    const whole = [...above, ...path]
    return {
      pointer: whole.map((part) => `/${String(part).replaceAll('~', '~0').replaceAll('/', '~1')}`).join(''),
      field: pathText(whole),
      detail: message
    }
  })
}

/** An input with fields that are not acceptable. */
export function refused(problems: readonly FieldProblem[]): HttpProblem {
  return new HttpProblem(422, 'refused', 'Something in what was sent is not acceptable.', fieldErrors(problems))
}

export const notFound = (what: string) => new HttpProblem(404, 'not-found', `There is no such ${what}.`)
export const forbidden = (title: string) => new HttpProblem(403, 'forbidden', title)
export const conflictingState = (type: string, title: string) => new HttpProblem(409, type, title)
