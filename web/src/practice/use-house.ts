import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import { modelKey, type Catalogue, type Model } from '@pasado/core/catalogue/model'
import type { HouseAction } from '@pasado/core/house/definition'
import { playHouse, type House } from '@pasado/core/house/house'
import { ask, failureTitle } from '../app/api'
import { useModels } from '../catalogue/models'
import { useRead } from '../app/read'

export const speeds = [0, 1, 10, 60] as const
export type Speed = (typeof speeds)[number]
/** Something to do, without its second. */
export type Deed = HouseAction extends infer A ? (A extends HouseAction ? Omit<A, 'at'> : never) : never

const TICK_MS = 200

/** A house that lives on this screen: its clock runs at a speed, what is done in it goes to the server. */
export function useHouse(id: string) {
  const { models } = useModels()
  const [house, setHouse] = useState<House | null>(null)
  const [unsent, setUnsent] = useState<string | null>(null)
  const [speed, setSpeed] = useState<Speed>(1)
  const [, look] = useState(0)
  const done = useRef(0)
  const sent = useRef(0)
  const queue = useRef<HouseAction[]>([])
  const sending = useRef<Promise<void> | null>(null)
  const catalogue: Catalogue | null = useMemo(
    () => (models ? new Map(models.map((model: Model) => [modelKey(model.id, model.version), model])) : null),
    [models]
  )
  // What is done here is built upon what it was: it is read but once.
  const read = useRead(
    'GET /houses/:id',
    { params: { id } },
    { once: true, otherwise: 'The house could not be opened; load the page again.' }
  )
  const file = read.value
  useEffect(() => {
    if (!catalogue || !file) return
    done.current = sent.current = file.actions.length
    setHouse(playHouse(file.definition, file.actions, catalogue))
  }, [file, catalogue])
  useEffect(() => {
    if (!house || speed === 0) return
    let before = performance.now()
    const timer = setInterval(() => {
      const now = performance.now()
      house.advanceTo(house.now + ((now - before) / 1000) * speed)
      before = now
      look((count) => count + 1)
    }, TICK_MS)
    return () => clearInterval(timer)
  }, [house, speed])
  const flush = useCallback((): Promise<void> => {
    sending.current ??= (async () => {
      while (queue.current.length) {
        const actions = queue.current.slice(0, 100)
        await ask('POST /houses/:id/actions', { params: { id }, body: { after: sent.current, actions } })
        sent.current += actions.length
        queue.current = queue.current.slice(actions.length)
      }
    })()
      .catch((error: unknown) =>
        setUnsent(failureTitle(error, 'What was done is kept here; the server is not in reach.'))
      )
      .finally(() => {
        sending.current = null
      })
    return sending.current
  }, [id])
  const act = useCallback(
    (deed: Deed) => {
      if (!house) return
      // To a hundredth of a second, so that the server's house is this very house.
      const action = { at: Math.ceil(house.now * 100) / 100, ...deed }
      house.act(action)
      queue.current.push(action)
      done.current++
      look((count) => count + 1)
      void flush()
    },
    [house, flush]
  )
  const toNext = useCallback(() => {
    if (!house || house.nextAt === null) return
    house.advanceTo(house.nextAt)
    act({ do: 'wait' })
  }, [house, act])
  // The server's house is at the same second when somebody leaves: what reads its units reads them as they are.
  useEffect(
    () => () => {
      if (house) {
        queue.current.push({ at: Math.ceil(house.now * 100) / 100, do: 'wait' })
        void flush()
      }
    },
    [house, flush]
  )
  return { house, problem: unsent ?? read.problem, speed, setSpeed, act, toNext, catalogue }
}
