import { useRef, useState, type KeyboardEvent, type MouseEvent, type PointerEvent } from 'react'
import type { NamedRoom } from '@pasado/core/work/plan/home-plan'
import { type PlanWall } from '@pasado/core/work/plan/walls'
import { type Outlet, type Trouble } from '@pasado/core/record/record'
import type { frameOf } from './frame'
import { edgesOf, movedTo, snapped, tenth } from './snap'

export type Tool = 'choose' | 'room' | 'opening' | 'stairs' | 'outlet' | 'cable' | 'trouble' | 'unit' | 'reading'
export type Chosen =
  | { kind: 'room' | 'unit' | 'stays' | 'outlet' | 'trouble' | 'opening'; id: string }
  | { kind: 'stretch'; id: string; wall: PlanWall }

export type Place = { x: number; y: number }
export type Moved = 'unit' | 'stays' | 'outlet' | 'trouble'
export type Drag =
  | { what: 'room'; id: string; dx: number; dy: number; x: number; y: number }
  | { what: Moved; id: string; x: number; y: number }
  | { what: 'draw'; x: number; y: number; toX: number; toY: number }

/** What the plan's picture tells those who change the plan. */
export interface PlanChanges {
  tool: Tool
  chosen: Chosen | null
  mayWrite: boolean
  onChoose: (chosen: Chosen | null) => void
  onDraw: (area: Place & { widthM: number; depthM: number }) => void
  onMoveRoom: (id: string, to: Place) => void
  onPut: (at: Place) => void
  onMove: (what: Moved, id: string, at: Place, done: boolean) => void
  /** The point that is pointed at, to tell its signal. */
  onProbe: (at: Place | null) => void
}

/** Drawing and moving on the plan of a storey, by hand and by the arrow keys. All places in metres. */
export function usePlanDrag(
  frame: ReturnType<typeof frameOf>,
  rooms: readonly NamedRoom[],
  { tool, chosen, mayWrite, onChoose, onDraw, onMoveRoom, onPut, onMove, onProbe }: PlanChanges
) {
  const svg = useRef<SVGSVGElement>(null)
  const [drag, setDrag] = useState<Drag | null>(null)
  const hasPut = useRef(false)
  const at = (event: PointerEvent): Place => {
    const box = svg.current!.getBoundingClientRect()
    const scale = Math.max(frame.width / box.width, frame.height / box.height)
    return {
      x: frame.x + (event.clientX - box.left - (box.width - frame.width / scale) / 2) * scale,
      y: frame.y + (event.clientY - box.top - (box.height - frame.height / scale) / 2) * scale
    }
  }
  const drawsArea = tool === 'room' || tool === 'stairs'
  const down = (event: PointerEvent) => {
    if (!mayWrite) return
    const point = at(event)
    const { across, down: lines } = edgesOf(rooms)
    if (drawsArea) {
      svg.current!.setPointerCapture(event.pointerId)
      const [x, y] = [snapped(point.x, across), snapped(point.y, lines)]
      setDrag({ what: 'draw', x, y, toX: x, toY: y })
    } else if (tool !== 'choose' && tool !== 'cable') {
      hasPut.current = true
      onPut({ x: tenth(point.x), y: tenth(point.y) })
    } else onChoose(null)
  }
  /** What was just put down is chosen: the room under it does not take the cursor, which would choose that. */
  const pressed = (event: MouseEvent) => {
    if (hasPut.current) event.preventDefault()
    hasPut.current = false
  }
  const move = (event: PointerEvent) => {
    onProbe(at(event))
    if (!drag) return
    const point = at(event)
    const { across, down: lines } = edgesOf(rooms)
    if (drag.what === 'draw') setDrag({ ...drag, toX: snapped(point.x, across), toY: snapped(point.y, lines) })
    else if (drag.what === 'room') setDrag({ ...drag, x: point.x - drag.dx, y: point.y - drag.dy })
    else {
      setDrag({ ...drag, x: tenth(point.x), y: tenth(point.y) })
      onMove(drag.what, drag.id, { x: tenth(point.x), y: tenth(point.y) }, false)
    }
  }
  const up = () => {
    if (!drag) return
    if (drag.what === 'draw') {
      const [x, y] = [Math.min(drag.x, drag.toX), Math.min(drag.y, drag.toY)]
      const [widthM, depthM] = [tenth(Math.abs(drag.toX - drag.x)), tenth(Math.abs(drag.toY - drag.y))]
      if (widthM >= 0.5 && depthM >= 0.5) onDraw({ x: tenth(x), y: tenth(y), widthM, depthM })
    } else if (drag.what === 'room') {
      const room = rooms.find(({ id }) => id === drag.id)!
      const to = movedTo(
        { ...room, x: drag.x, y: drag.y },
        rooms.filter(({ id }) => id !== drag.id)
      )
      if (to.x !== room.x || to.y !== room.y) onMoveRoom(drag.id, to)
    } else onMove(drag.what, drag.id, { x: drag.x, y: drag.y }, true)
    setDrag(null)
  }
  const takeRoom = (event: PointerEvent, room: NamedRoom) => {
    if (tool !== 'choose') return
    event.stopPropagation()
    onChoose({ kind: 'room', id: room.id })
    if (!mayWrite) return
    svg.current!.setPointerCapture(event.pointerId)
    const point = at(event)
    setDrag({ what: 'room', id: room.id, dx: point.x - room.x, dy: point.y - room.y, x: room.x, y: room.y })
  }
  const steps = (event: KeyboardEvent, from: Place, to: (place: Place) => void) => {
    const step = event.shiftKey ? 1 : 0.1
    const by = (
      { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, -step], ArrowDown: [0, step] } as Record<
        string,
        [number, number]
      >
    )[event.key]
    if (!by || !mayWrite) return
    event.preventDefault()
    to({ x: tenth(from.x + by[0]), y: tenth(from.y + by[1]) })
  }
  /** What a mark that can be moved answers to. */
  const movable = (what: Moved, id: string, from: Place) => ({
    on: chosen?.kind === what && chosen.id === id,
    onChoose: () => onChoose({ kind: what, id }),
    onDown: (event: PointerEvent) => {
      event.stopPropagation()
      onChoose({ kind: what, id })
      if (!mayWrite || tool === 'cable') return
      svg.current!.setPointerCapture(event.pointerId)
      setDrag({ what, id, ...from })
    },
    onKeyDown: (event: KeyboardEvent) => steps(event, from, (to) => onMove(what, id, to, true))
  })
  const whereIs = (what: Moved, { id, facts }: Outlet | Trouble): Place =>
    drag?.what === what && drag.id === id ? { x: drag.x, y: drag.y } : { x: facts.x!, y: facts.y! }
  const placeOf = (room: NamedRoom) => (drag?.what === 'room' && drag.id === room.id ? { x: drag.x, y: drag.y } : room)
  return { svg, drag, cancel: () => setDrag(null), down, pressed, move, up, takeRoom, steps, movable, whereIs, placeOf }
}
