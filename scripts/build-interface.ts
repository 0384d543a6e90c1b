import { existsSync } from 'node:fs'
import { readdir, stat } from 'node:fs/promises'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'

const root = join(import.meta.dirname, '..')

/** Builds the interface where a source is newer than what was built. */
export async function buildInterface(): Promise<void> {
  const built = join(root, 'web/dist/index.html')
  const newest = Math.max(
    ...(await Promise.all(
      ['web/src', 'web/index.html', 'web/vite.config.ts', 'core/src', 'package-lock.json'].map((path) =>
        newestIn(join(root, path))
      )
    ))
  )
  if (existsSync(built) && (await stat(built)).mtimeMs >= newest) return
  console.log('Building the interface …')
  // Whoever starts it: a build under a test runner's settings would be another program.
  process.env.NODE_ENV = 'production'
  const { build } = await import('vite')
  await build({ root: join(root, 'web'), mode: 'production', logLevel: 'warn' })
}

async function newestIn(path: string): Promise<number> {
  const here = await stat(path)
  if (!here.isDirectory()) return here.mtimeMs
  const below = await Promise.all((await readdir(path)).map((name) => newestIn(join(path, name))))
  return Math.max(here.mtimeMs, ...below)
}

// By itself: before several servers are started at once, which would all build.
if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href) await buildInterface()
