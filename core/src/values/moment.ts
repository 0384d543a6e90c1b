/** Whether a text names a time zone that is known here, such as Europe/Lisbon. */
export function isZone(zone: string): boolean {
  try {
    new Intl.DateTimeFormat('en-GB', { timeZone: zone })
    return true
  } catch {
    return false
  }
}

const formats = new Map<string, Intl.DateTimeFormat>()
/** @param zone the device's own where it is left out */
function formatIn(zone: string | undefined): Intl.DateTimeFormat {
  const known = formats.get(zone ?? '')
  if (known) return known
  const made = new Intl.DateTimeFormat('en-GB', {
    ...(zone === undefined ? {} : { timeZone: zone }),
    day: 'numeric',
    month: 'short',
    year: 'numeric',
    hour: '2-digit',
    minute: '2-digit',
    hourCycle: 'h23'
  })
  formats.set(zone ?? '', made)
  return made
}

/**
 * A moment in one zone, however it was written down: "1 Jul 2026, 11:05". Entries of a browser carry its own offset, those of the
 * server none: by this they are on one clock.
 * @param iso an RFC 3339 moment; what is none is given back as it stands
 */
export function formatMoment(iso: string, zone?: string): string {
  const date = new Date(iso)
  if (Number.isNaN(date.getTime())) return iso
  const parts = Object.fromEntries(
    formatIn(zone)
      .formatToParts(date)
      .map(({ type, value }) => [type, value])
  )
  return `${parts.day} ${parts.month} ${parts.year}, ${parts.hour}:${parts.minute}`
}
