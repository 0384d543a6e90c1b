/** The author's clock with its offset, as entries hold it. */
export function localTime(now: Date): string {
  const offset = -now.getTimezoneOffset()
  if (offset === 0) return now.toISOString()
  const sign = offset < 0 ? '-' : '+'
  const two = (number: number) => String(Math.floor(Math.abs(number))).padStart(2, '0')
  return `${new Date(now.getTime() + offset * 60_000).toISOString().slice(0, -1)}${sign}${two(offset / 60)}:${two(offset % 60)}`
}
