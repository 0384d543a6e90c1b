import { screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { beforeEach, expect, it } from 'vitest'
import { asking, useFailedWork, WorkFailed } from './asking'
import { FailedWork } from './FailedWork'
import { opened } from '@pasado/testing/logbook'
import { show } from '../../test/stage'

/** A worker whose answers a test gives. */
class Told extends EventTarget {
  readonly asked: { id: number; what: string }[] = []
  terminated = false
  postMessage(question: { id: number; what: string }) {
    this.asked.push(question)
  }
  terminate() {
    this.terminated = true
  }
  answer(at: number, answer: string) {
    this.dispatchEvent(new MessageEvent('message', { data: { id: this.asked[at]!.id, answer } }))
  }
}

let workers: Told[] = []
const started = () => {
  const told = new Told()
  workers.push(told)
  return told as unknown as Worker
}

beforeEach(() => {
  workers = []
  useFailedWork.setState({ what: null })
})

it('answers come to whoever asked, in whatever order; of those that are dragged the newest only', async () => {
  const { ask, newest } = asking<string, string>('It', started)
  const [a, b] = [ask('a'), ask('b')]
  const heard: string[] = []
  newest('c', (item) => heard.push(item))
  newest('d', (item) => heard.push(item))
  expect(workers).toHaveLength(1)
  for (const [at, answer] of ['D', 'C', 'B', 'A'].entries()) workers[0]!.answer(3 - at, answer)
  expect(await Promise.all([a, b])).toEqual(['A', 'B'])
  expect(heard).toEqual(['D'])
  expect(useFailedWork.getState().what).toBeNull()
})

it('one that breaks off is told of, nobody waits for it, and the next question begins with a new one', async () => {
  const { ask } = asking<string, string>('The channel plan', started)
  const waits = ask('a').catch((error: unknown) => error)
  workers[0]!.dispatchEvent(new Event('error'))
  expect(await waits).toBeInstanceOf(WorkFailed)
  expect(workers[0]!.terminated).toBe(true)
  show(opened(), <FailedWork />)
  expect((await screen.findByRole('alert')).textContent).toContain('The channel plan could not be worked out here')
  const again = ask('b')
  expect(workers).toHaveLength(2)
  workers[1]!.answer(0, 'B')
  expect(await again).toBe('B')
  await userEvent.setup().click(screen.getByRole('button', { name: 'Put away' }))
  expect(screen.queryByRole('alert')).toBeNull()
})
