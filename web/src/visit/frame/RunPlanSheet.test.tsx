import { screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { planIf, type WhatIf } from '@pasado/core/agenda/what-if'
import { nextOf, agendaOf } from '@pasado/core/agenda/planned'
import type { PlannedTask } from '@pasado/core/work/run/visit-plan'
import { node, opened, router } from '@pasado/testing/logbook'
import { useVisit } from '../session/visit-state'
import { clearStores } from '../../../test/idb'
import { show, written } from '../../../test/stage'
import { useAgenda } from './use-agenda'
import { Docket } from './Docket'
import { RunPlanSheet } from './RunPlanSheet'
import { Waits } from './Waits'

const user = userEvent.setup({ delay: null })
const workerBefore: unknown = Reflect.get(globalThis, 'Worker')

/** The worker that plans what would be, as the page sees it. */
class PlanningWorker extends EventTarget {
  postMessage({ id, what }: { id: number; what: { tasks: PlannedTask[]; what: WhatIf } }) {
    const answer = planIf(what.tasks, what.what)
    setTimeout(() => this.dispatchEvent(new MessageEvent('message', { data: { id, answer } })))
  }
  terminate() {}
}

beforeEach(() => {
  vi.stubGlobal('Worker', PlanningWorker)
  clearStores()
})
// Only that: the server of these tests is a stub as well.
afterEach(() => vi.stubGlobal('Worker', workerBefore))

const fresh = () =>
  opened()
    .write('unit.set', {
      id: router,
      set: { name: 'Router', model: 'ostrel-heron', modelVersion: 1, role: 'router' }
    })
    .write('unit.set', { id: node, set: { name: 'Node', model: 'ostrel-tern', modelVersion: 1, role: 'node' } })

function Views() {
  const found = useAgenda()
  return (
    <>
      <Docket />
      <Waits found={found} onDocket={() => undefined} onPlan={() => undefined} />
      <RunPlanSheet found={found} open onClose={() => undefined} />
    </>
  )
}

describe('the run plan', () => {
  it('names the same two figures as docket and foot, and begins with what is next', async () => {
    show(fresh(), <Views />)
    const plan = await screen.findByRole('dialog', { name: 'Run plan' })
    const figures = /\d+ min hands on, over about \d\d:\d\d/
    const [figure] = figures.exec(plan.textContent)!
    expect(document.body.textContent.split(figure)).toHaveLength(4)
    const { works, planned } = useVisit.getState()
    const next = nextOf(agendaOf(works, planned!.plan))!
    expect(within(plan).getAllByRole('listitem')[0]!.textContent).toContain(next.name)
    expect(screen.getByRole('group', { name: 'Run plan', hidden: true }).textContent).toContain(`Next: ${next.name}`)
  })

  it('tells what if some of it is left for a second visit, and writes nothing of that', async () => {
    show(fresh(), <Views />)
    const plan = within(await screen.findByRole('dialog', { name: 'Run plan' }))
    await user.click(plan.getByRole('button', { name: 'What if …' }))
    const tick = plan.getByRole('checkbox', { name: /^Leave for a second visit: Measure every room/ })
    await user.click(tick)
    expect(tick).toHaveProperty('checked', true)
    expect(plan.getByRole('checkbox', { name: /Sign off/ })).toHaveProperty('disabled', true)
    const { works, planned } = useVisit.getState()
    const answer = planIf(works, { without: ['rooms'], helperMin: null, byMin: null })
    expect(answer.plan.handsOnMin).toBe(planned!.plan.handsOnMin - 6)
    const told = await plan.findByText(/^Then/)
    expect(told.textContent).toContain(`${Math.round(answer.plan.handsOnMin)} min hands on`)
    expect(told.textContent).toMatch(/: \d+ min sooner\. One thing stays between here and sign-off/)
    expect(written('rule.answered')).toEqual([])
  })
})
