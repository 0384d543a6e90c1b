import { createInterface } from 'node:readline'
import { text } from 'node:stream/consumers'
import { calculate, calculations, calculationSchemas } from '@pasado/core/calc/registry'
import { describeProblem, Refusal } from '@pasado/core/values/problem'
import { parseWords, unreadable } from './words'

/** `pasado calc`: computations of the core, by name. */
export async function calc(words: readonly string[]): Promise<number> {
  try {
    const { rest, has } = parseWords(words, ['--list', '--schema', '--each'])
    if (has.has('--list')) {
      console.log(Object.keys(calculations).join('\n'))
      return 0
    }
    const [name] = rest
    if (name === undefined || rest.length > 1)
      throw new Error('say which computation: pasado calc NAME; see pasado calc --list')
    if (!Object.hasOwn(calculations, name)) throw new Error(`no computation is called ${name}; see pasado calc --list`)
    if (has.has('--schema')) {
      console.log(JSON.stringify(calculationSchemas(name), null, 2))
      return 0
    }
    if (has.has('--each')) return await each(name)
    const complete = await demoFor(name)
    console.log(JSON.stringify(calculate(name, complete(parse(await text(process.stdin))))))
    return 0
  } catch (error) {
    return unreadable(error)
  }
}

/** One JSON document a line, one result a line, in order; a refused one says why and the others go on. */
async function each(name: string): Promise<number> {
  const complete = await demoFor(name)
  for await (const line of createInterface({ input: process.stdin, crlfDelay: Infinity })) {
    if (line.trim() === '') continue
    const result = attempt(() => calculate(name, complete(parse(line))))
    if (!process.stdout.write(`${JSON.stringify(result)}\n`))
      await new Promise((resolve) => process.stdout.once('drain', resolve))
  }
  return 0
}

/** Fills in the models of the demo company where a computation reads by a catalogue and none is given; they are loaded for that one only. */
async function demoFor(name: string): Promise<(input: unknown) => unknown> {
  if (name !== 'label' && name !== 'verdicts') return (input) => input
  const [{ knownModels }, { demoModels }] = await Promise.all([
    import('@pasado/core/labels/known-models'),
    import('@pasado/demo/models/all')
  ])
  return (input) =>
    typeof input !== 'object' || input === null || 'models' in input
      ? input
      : { ...input, models: name === 'label' ? knownModels(demoModels) : demoModels }
}

function attempt(work: () => unknown): unknown {
  try {
    return work()
  } catch (error) {
    if (error instanceof Refusal) return { refused: error.problems.map(describeProblem) }
    throw error
  }
}

function parse(json: string): unknown {
  try {
    return JSON.parse(json)
  } catch {
    throw new Refusal([{ path: [], message: 'is not well-formed JSON' }])
  }
}
