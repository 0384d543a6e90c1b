import { del, get, set as keep } from 'idb-keyval'
import { useEffect, useState } from 'react'
import type { Standard } from '@pasado/core/policy/standard'

const key = (current: Standard) => `pasado-standard-draft-${current.id}-${current.version + 1}`

/** A draft of the next version, kept on this device until it is published or thrown away; null where there is none. */
export function useKeptDraft(current: Standard): {
  draft: Standard | null
  set: (draft: Standard) => void
  forget: () => void
} {
  const [draft, setDraft] = useState<Standard | null>(null)
  useEffect(() => {
    let here = true
    void get<Standard>(key(current)).then(
      (kept) => {
        if (here && kept) setDraft((now) => now ?? kept)
      },
      () => undefined
    )
    return () => {
      here = false
    }
  }, [current])
  return {
    draft,
    set: (next) => {
      setDraft(next)
      void keep(key(current), next).catch(() => undefined)
    },
    forget: () => {
      setDraft(null)
      void del(key(current)).catch(() => undefined)
    }
  }
}
