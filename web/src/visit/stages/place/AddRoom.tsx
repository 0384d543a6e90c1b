import { useState } from 'react'
import { readNumber } from '@pasado/core/values/number'
import { useMayWrite } from '../../session/facts'
import { tenth } from './snap'
import { Button } from '../../../ui/Button'
import { Problem } from '../../../ui/Problem'
import { Input } from '../../../ui/Field'

/** A room by its size, for those who would rather type than draw. */
export function AddRoom({
  onAdd,
  nextX
}: {
  onAdd: (room: { x: number; y: number; widthM: number; depthM: number }, name: string) => void
  nextX: number
}) {
  const [name, setName] = useState('')
  const [width, setWidth] = useState('')
  const [depth, setDepth] = useState('')
  const mayWrite = useMayWrite()
  const wrong = [width, depth].some((text) => text !== '' && !(readNumber(text) >= 0.5 && readNumber(text) <= 60))
  if (!mayWrite) return null
  const add = (event: React.FormEvent) => {
    event.preventDefault()
    if (!name.trim() || !width || !depth || wrong) return
    onAdd({ x: tenth(nextX), y: 0, widthM: tenth(readNumber(width)), depthM: tenth(readNumber(depth)) }, name.trim())
    setName('')
    setWidth('')
    setDepth('')
  }
  return (
    <form onSubmit={add} aria-label="Add a room">
      <h3>Add a room</h3>
      <p className="fine">Draw it, or type how wide and how deep it is; it joins the last one, and can be moved.</p>
      <div className="mt-2 grid grid-cols-[2fr_1fr_1fr_auto] items-end gap-2">
        <div>
          <label className="label" htmlFor="room-name">
            Room
          </label>
          <Input
            id="room-name"
            className="mt-1"
            maxLength={60}
            autoComplete="off"
            value={name}
            onChange={(event) => setName(event.target.value)}
          />
        </div>
        <div>
          <label className="label" htmlFor="room-width">
            Width, m
          </label>
          <Input
            id="room-width"
            className="mt-1"
            inputMode="decimal"
            autoComplete="off"
            value={width}
            onChange={(event) => setWidth(event.target.value)}
          />
        </div>
        <div>
          <label className="label" htmlFor="room-depth">
            Depth, m
          </label>
          <Input
            id="room-depth"
            className="mt-1"
            inputMode="decimal"
            autoComplete="off"
            value={depth}
            onChange={(event) => setDepth(event.target.value)}
          />
        </div>
        <Button type="submit" disabled={!name.trim() || !width || !depth || wrong}>
          Add
        </Button>
      </div>
      <Problem message={wrong && 'A room is 0.5 to 60 m wide and deep: enter metres.'} className="mt-1" />
    </form>
  )
}
