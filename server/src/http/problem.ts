import type { DomainProblem, ProblemKind } from '../problem'
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
        ? { detail: this.errors.map((error) => `${error.field}: ${error.detail}`).join('; '), errors: this.errors }
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

/** The status that each kind of problem is answered with (RFC 9110). */
const statusOf: Record<ProblemKind, number> = {
  refused: 422,
  forbidden: 403,
  'not-found': 404,
  conflict: 409,
  gone: 410,
  busy: 503
}

/** A problem of what does the work, as it is told over HTTP. */
export function toHttp({ kind, type, title, problems, extra }: DomainProblem): HttpProblem {
  return new HttpProblem(statusOf[kind], type, title, fieldErrors(problems), extra)
}
