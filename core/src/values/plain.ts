/** A value of any kind as text: nothing as an empty one, objects as JSON. */
export function textOf(value: unknown): string {
  if (value === undefined || value === null) return ''
  if (typeof value === 'string') return value
  return JSON.stringify(value) ?? ''
}
