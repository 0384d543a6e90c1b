import { useCallback, useEffect, useRef, useState, type ReactNode } from 'react'
import { Button } from './Button'

/** A button that counts how long it is held, by the screen or by the space bar. */
export function HeldButton({
  children,
  disabled = false,
  onBegin,
  onCount,
  onHeld
}: {
  children: ReactNode
  disabled?: boolean
  onBegin?: () => void
  onCount?: (seconds: number | null) => void
  onHeld: (seconds: number) => void
}) {
  const [held, setHeld] = useState<number | null>(null)
  const began = useRef<number | null>(null)
  const counting = held !== null
  const told = useRef(onCount)
  useEffect(() => {
    told.current = onCount
  }, [onCount])
  const count = useCallback((seconds: number | null) => {
    setHeld(seconds)
    told.current?.(seconds)
  }, [])
  useEffect(() => {
    if (!counting) return
    const timer = setInterval(() => {
      if (began.current !== null) count((performance.now() - began.current) / 1000)
    }, 100)
    return () => clearInterval(timer)
  }, [counting, count])
  const down = () => {
    if (began.current === null) {
      began.current = performance.now()
      onBegin?.()
      count(0)
    }
  }
  const up = () => {
    if (began.current === null) return
    const seconds = Math.round((performance.now() - began.current) / 100) / 10
    began.current = null
    count(null)
    onHeld(seconds)
  }
  return (
    <Button
      disabled={disabled}
      className="min-w-40 touch-none select-none"
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId)
        down()
      }}
      onPointerUp={up}
      onPointerCancel={up}
      onKeyDown={(event) => {
        if (event.key === ' ' && !event.repeat) {
          event.preventDefault()
          down()
        }
      }}
      onKeyUp={(event) => {
        if (event.key === ' ') {
          event.preventDefault()
          up()
        }
      }}
    >
      {held === null ? children : `${held.toFixed(1)} s`}
    </Button>
  )
}
