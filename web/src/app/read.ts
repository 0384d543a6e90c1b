import { keepPreviousData, QueryClient, useQuery } from '@tanstack/react-query'
import { useId } from 'react'
import type { AnswerOf, CallName, SentTo } from '@pasado/core/api/all'
import { ApiProblem, askAny, failureWords, type Carried } from './api'
import type { Together } from './calls'
import { useSession } from './session'

/** After how long what could not be read is read again, where the server may be back by then. */
const RETRY_MS = 3_000

/** Everything that screens outside a visit have read. Whoever looks anew reads anew: what is shown is what the server has. */
export const reads = new QueryClient({
  defaultOptions: {
    // Whether there is a server is the call's to find out, not the browser's: it may run on this very device.
    queries: { networkMode: 'always', retry: false, gcTime: 0, refetchOnWindowFocus: false }
  }
})

// Nothing that one person read is shown to the next.
useSession.subscribe(({ me }, before) => {
  if (before.me && me?.id !== before.me.id) reads.clear()
})

/** What was read, and how it went. */
export interface Read<T> {
  /** Undefined as long as it was never there. */
  value: T | undefined
  /** Why it could not be read just now; null where it could. */
  problem: string | null
  /** True where the server could not be reached: it is read again by itself. */
  away: boolean
  /** Shows this in its place, until it is read again. */
  put: (value: T) => void
  /** Reads it again; settled once that is done. */
  again: () => Promise<void>
}

interface How {
  /** What is told where it fails for a reason that no answer of the server tells. */
  otherwise?: string
  /** False as long as it is not to be read. */
  when?: boolean
  /** Read but once, and by whoever shows it for itself: what it was at that moment is built upon. */
  once?: boolean
  /** True where what was read by the key before is shown until this is there. */
  keep?: boolean
}

/**
 * Reads something for as long as it is shown, and again by itself while the server cannot be reached. Shared by all that show it.
 * @param key by which two readings are the same
 */
export function useReading<T>(
  key: readonly unknown[],
  read: () => Promise<T>,
  { otherwise = 'It could not be loaded; load the page again.', when = true, once = false, keep = false }: How = {}
): Read<T> {
  const own = useId()
  const queryKey = once ? [...key, own] : key
  const { data, error, refetch } = useQuery(
    {
      queryKey,
      queryFn: read,
      enabled: when,
      ...(keep ? { placeholderData: keepPreviousData } : {}),
      staleTime: once ? Infinity : 0,
      refetchInterval: ({ state: { error: failed } }) =>
        failed instanceof ApiProblem && failed.passing ? RETRY_MS : false
    },
    reads
  )
  return {
    value: data,
    problem: error === null ? null : failureWords(error, otherwise),
    away: error instanceof ApiProblem && error.passing,
    put: (value) => {
      reads.setQueryData(queryKey, value)
    },
    again: async () => {
      await refetch()
    }
  }
}

function useReadAny(call: string, sent: Carried, how?: How): Read<unknown> {
  return useReading([call, sent], () => askAny(call, sent), how)
}

/** Reads a call of the API: what goes in and what comes out is as the contract of the call says. */
export const useRead = useReadAny as unknown as Together<
  { [N in CallName]: (call: N, sent: SentTo<N>, how?: How) => Read<AnswerOf<N>> }[CallName]
>
