import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'

/** So many lines alike, one after another, are one thing that stands twice. */
const LINES = 8
const root = join(import.meta.dirname, '..')
const places = ['core/src', 'server/src', 'web/src', 'cli/src', 'demo/src', 'scripts']

interface Line {
  file: string
  number: number
  text: string
}

/** The lines of a file that say something: no blanks, comments, imports, and none of brackets alone. */
function saying(file: string): Line[] {
  const text = readFileSync(join(root, file), 'utf8').replace(/^import [\s\S]*?from '[^']+'$/gm, (whole) =>
    '\n'.repeat(whole.split('\n').length - 1)
  )
  return text.split('\n').flatMap((line, at) => {
    const bare = line.trim()
    return /[A-Za-z]/.test(bare) && !/^(?:\/\/|\/?\*)/.test(bare) ? [{ file, number: at + 1, text: bare }] : []
  })
}

/** Where blocks stand that stand elsewhere as well, each with where it stood first. */
export function twins(files: readonly Line[][], lines = LINES): string[] {
  const seen = new Map<string, Line>()
  const found: string[] = []
  for (const all of files) {
    for (let at = 0; at + lines <= all.length; at++) {
      const block = all.slice(at, at + lines)
      const key = block.map(({ text }) => text).join('\n')
      const first = seen.get(key)
      if (!first) seen.set(key, block[0]!)
      else {
        found.push(`${block[0]!.file}:${block[0]!.number} is as ${first.file}:${first.number}, ${lines} lines or more`)
        at += lines - 1
      }
    }
  }
  return found
}

const files = places.flatMap((place) =>
  readdirSync(join(root, place), { recursive: true, encoding: 'utf8' })
    .filter((name) => /\.tsx?$/.test(name) && !name.includes('node_modules'))
    .map((name) => `${place}/${name}`)
)
const found = twins(files.sort().map(saying))
for (const twin of found) console.log(twin)
process.exit(found.length ? 1 : 0)
