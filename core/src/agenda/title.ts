import type { Finding } from '../rules/finding'

/** A finding as one line: what it is about, and what its rule is called. */
export function titleOf({ subject, name }: Pick<Finding, 'subject' | 'name'>): string {
  return subject ? `${subject.name}: ${name.toLowerCase()}` : name
}

/** A finding as it is called inside a sentence. */
export const titleInside = (finding: Finding): string =>
  finding.subject ? titleOf(finding) : finding.name.toLowerCase()
