import { parentPort } from 'node:worker_threads'
import { openPool, type Db } from '../db/pool'
import { listVerdicts } from '../logbook/list-verdicts'
import { VisitStates } from '../logbook/states'
import type { JudgeAnswer, JudgeAsk } from './thread'

/** One visit is judged after another. */
const CONNECTIONS = 2

let faults: JudgeAnswer['faults'] = []
let logbook: { db: Db; states: VisitStates } | null = null

/** Asks the rules of a visit as the database knows it, and lists what they say. */
async function judged({ url, visit }: JudgeAsk): Promise<JudgeAnswer> {
  logbook ??= {
    db: openPool(url, CONNECTIONS),
    states: new VisitStates((rule, error) => faults.push({ rule, problem: (error as Error).name }))
  }
  faults = []
  try {
    return { isSealed: visit !== null && (await listVerdicts(logbook, visit)), faults }
  } catch (error) {
    const { name, code } = error as { name: string; code?: string }
    return { isSealed: false, faults, failed: { name, ...(code !== undefined && { code }) } }
  }
}

parentPort!.on('message', ({ id, what }: { id: number; what: JudgeAsk }) => {
  void judged(what).then((answer) => parentPort!.postMessage({ id, answer }))
})
