import { asking } from './asking'
import type { JudgeAnswer, JudgeAsk } from './judge-visit'

/** Asks the rules in a worker, which goes on from what it was asked before: where it breaks off they are asked on the page. */
export const { ask: askRules } = asking<JudgeAsk, JudgeAnswer>(
  null,
  () => new Worker(new URL('./judge.worker.ts', import.meta.url), { type: 'module' })
)
