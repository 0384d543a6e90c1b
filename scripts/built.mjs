// @ts-check
/*
 * What runs the program's own TypeScript: each command is put together once, and again where a source of it is another than then. Read as it is by a loader, a
 * server took seconds to start, in which every file was translated by itself.
 */
import { existsSync, mkdirSync, readFileSync, readdirSync, renameSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { randomUUID } from 'node:crypto'

const root = join(import.meta.dirname, '..')
const folder = join(root, '.data/built')
const index = join(folder, 'index.json')
/** What was built before stays so long, ms: a process that was started by it may still load a part. */
const KEPT_MS = 24 * 3600 * 1000

/** What can be run, by its path from the root; what runs in a thread of one of them is in the same list. */
const entries = [
  ...[
    'archive',
    'backup',
    'check-all',
    'database',
    'demo-homes',
    'keys',
    'rebuild',
    'restore',
    'rotate-key',
    'start'
  ].map((name) => `scripts/${name}.ts`),
  'scripts/cluster/check-main.ts',
  'cli/src/main.ts',
  'testing/serve-process.ts',
  ...['because', 'judging', 'strength'].map((name) => `server/src/${name}/worker.ts`)
]

/** Where nothing can be written, or read, beside the sources: whoever runs a command there is another user, or the disk is only read. */
const notOurs = new Set(['EACCES', 'EPERM', 'EROFS'])

/**
 * Loads a part of the program: as it was built, or through a loader, file by file, for whoever may not build here.
 * @param {string} entry its path from the root
 */
export async function load(entry) {
  // What a fault says names the sources.
  process.setSourceMapsEnabled(true)
  try {
    return await import(await built(entry))
  } catch (error) {
    if (!notOurs.has(/** @type {{ code?: string, syscall?: string }} */ (error).code ?? '') || isBuilt) throw error
    const { register } = await import('tsx/esm/api')
    register()
    return import(pathToFileURL(join(root, entry)).href)
  }
}

/** Whether what was asked for is there: what goes wrong from then on is the program's own. */
let isBuilt = false

/**
 * Where a part of the program stands, ready to be imported by Node.js: built now where it is not up to date.
 * @param {string} entry its path from the root
 * @returns {Promise<string>} the address of the module
 */
async function built(entry) {
  if (!entries.includes(entry)) throw new Error(`${entry} is not among what is built; add it to scripts/built.mjs`)
  const at = upToDate() ?? (await build())
  isBuilt = true
  return pathToFileURL(join(folder, at, entry.replace(/\.ts$/, '.mjs'))).href
}

/** @returns {string | null} the folder of what was built last, where each of its sources is as it was then */
function upToDate() {
  try {
    const { at, from, sources } = JSON.parse(readFileSync(index, 'utf8'))
    const isSame = (/** @type {[string, string]} */ [path, stamp]) => stampOf(path) === stamp
    return from === root && existsSync(join(folder, at)) && sources.every(isSame) ? at : null
  } catch {
    return null
  }
}

/** When a source was written, and how long it is. @param {string} path from the root */
function stampOf(path) {
  const { mtimeMs, size } = statSync(join(root, path))
  return `${mtimeMs} ${size}`
}

/** Builds all in a folder of its own, then points at it: whoever looks meanwhile finds what was built before. */
async function build() {
  mkdirSync(folder, { recursive: true, mode: 0o700 })
  const esbuild = await import('esbuild')
  const at = randomUUID()
  const { metafile } = await esbuild.build({
    absWorkingDir: root,
    entryPoints: entries,
    outbase: '.',
    outdir: join(folder, at),
    outExtension: { '.js': '.mjs' },
    chunkNames: 'shared/[name]-[hash]',
    bundle: true,
    splitting: true,
    format: 'esm',
    platform: 'node',
    target: 'node20',
    packages: 'external',
    sourcemap: true,
    sourcesContent: false,
    metafile: true,
    logLevel: 'error',
    plugins: [ourPackages, whereItStands(at)]
  })
  const sources = Object.keys(metafile.inputs)
    .filter((path) => existsSync(join(root, path)))
    .concat('scripts/built.mjs')
    .map((path) => [path, stampOf(path)])
  const next = join(folder, `${at}.json`)
  writeFileSync(next, JSON.stringify({ at, from: root, sources }))
  renameSync(next, index)
  forgetOld(at)
  return at
}

/** @param {string} at the folder that stays */
function forgetOld(at) {
  for (const name of readdirSync(folder)) {
    const path = join(folder, name)
    if (name === at || path === index || Date.now() - statSync(path).mtimeMs < KEPT_MS) continue
    rmSync(path, { recursive: true, force: true })
  }
}

/** The program's own packages are part of what is built; all others stay packages. @type {import('esbuild').Plugin} */
const ourPackages = {
  name: 'our-packages',
  setup(build) {
    build.onResolve({ filter: /^@pasado\// }, ({ path }) => {
      const [, part, ...rest] = path.split('/')
      const { exports } = JSON.parse(readFileSync(join(root, `${part}/package.json`), 'utf8'))
      return { path: join(root, String(part), exports['./*'].replace('*', rest.join('/'))) }
    })
  }
}

/**
 * A source goes on to find what lies beside it (migrations, fonts) by where it stands itself; a thread's script is the built one.
 * @param {string} at the folder of what is built
 * @returns {import('esbuild').Plugin}
 */
const whereItStands = (at) => ({
  name: 'where-it-stands',
  setup(build) {
    build.onLoad({ filter: /\.ts$/ }, ({ path }) => {
      const source = readFileSync(path, 'utf8')
      if (!source.includes('import.meta.')) return null
      const threads = join(folder, at, dirname(path).slice(root.length), 'worker.mjs')
      return {
        loader: 'ts',
        contents: source
          .replaceAll(
            "new URL('./worker.mjs', import.meta.url)",
            `new URL(${JSON.stringify(pathToFileURL(threads).href)})`
          )
          .replaceAll('import.meta.url', JSON.stringify(pathToFileURL(path).href))
          .replaceAll('import.meta.dirname', JSON.stringify(dirname(path)))
      }
    })
  }
})
