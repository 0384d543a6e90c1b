/** Shorter values are found by chance in ordinary text, so only these are looked for. */
const SHORTEST_LOOKED_FOR = 6

/** What stands on a unit's label in the open: some makers print a serial or MAC address as the key as well. */
const onTheLabel = new Set(['serial', 'mac', 'defaultSsid'])

/** Where texts of an entry's body hold a secret, by their paths. */
export function leaksIn(body: unknown, secrets: readonly string[]): (string | number)[][] {
  const looked = secrets.filter((secret) => secret.length >= SHORTEST_LOOKED_FOR)
  const found: (string | number)[][] = []
  const walk = (value: unknown, path: (string | number)[]) => {
    if (typeof value === 'string') {
      if (looked.some((secret) => value.includes(secret))) found.push(path)
    } else if (Array.isArray(value)) value.forEach((part, index) => walk(part, [...path, index]))
    else if (value && typeof value === 'object')
      for (const [key, part] of Object.entries(value)) if (!onTheLabel.has(key)) walk(part, [...path, key])
  }
  if (looked.length) walk(body, [])
  return found
}
