import { Suspense, useState, type ComponentType } from 'react'
import { laterPart } from './script-part'

/** A sheet whose script is loaded when it is first opened; from then on it stays, open or closed. */
export function laterSheet<P extends object>(load: () => Promise<ComponentType<P>>, isOpen: (props: P) => boolean) {
  const Part = laterPart(load)
  return function LaterSheet(props: P) {
    const open = isOpen(props)
    const [wasOpen, setWasOpen] = useState(open)
    if (open && !wasOpen) setWasOpen(true)
    return (
      wasOpen && (
        <Suspense fallback={null}>
          <Part {...props} />
        </Suspense>
      )
    )
  }
}
