import { useEffect, useState } from 'react'
import type { House } from '@pasado/core/house/house'
import type { UnitNow } from '@pasado/core/house/moment'
import { pagesOf, readingOf } from '@pasado/core/house/pages'
import type { HouseSettings } from '@pasado/core/house/definition'
import { updateWork } from '@pasado/core/catalogue/firmware-work'
import { UnitFront } from '../catalogue/UnitPicture'
import { ask } from '../app/api'
import { HeldButton } from '../ui/HeldButton'
import type { Deed } from './use-house'
import { Button } from '../ui/Button'
import { Problem } from '../ui/Problem'
import { Field, Select, Input } from '../ui/Field'

/** One unit of the house: its front, its plug, its buttons to hold, where it is carried, its label and its own pages. */
export function HouseUnitWork({ house, unit, act }: { house: House; unit: UnitNow; act: (deed: Deed) => void }) {
  const { definition, model, powered } = unit
  const { id } = definition
  const byCable = model.ports.some(({ powerInClass }) => powerInClass !== undefined)
  const has = (kind: (typeof model.methods)[number]['kind']) => model.methods.some((method) => method.kind === kind)
  const newest = updateWork(model, unit.firmware || '0').path
  return (
    <section aria-label={definition.name} className="paper p-4">
      <div className="flex flex-wrap items-baseline justify-between gap-2">
        <h2 className="text-lg">{definition.name}</h2>
        <p className="fine">
          {model.maker} {model.name}
        </p>
      </div>
      <div className="mt-2 grid gap-4 sm:grid-cols-[minmax(0,1fr)_14rem]">
        <div className="flex flex-col gap-3">
          <div className="flex flex-wrap gap-2">
            {!byCable &&
              (powered ? (
                <Button onClick={() => act({ do: 'unplug', unit: id })}>Pull its plug</Button>
              ) : (
                <Button onClick={() => act({ do: 'plug', unit: id })}>Plug it in</Button>
              ))}
            {byCable && <p className="fine self-center">Takes its power from its network cable.</p>}
            {model.power && <Button onClick={() => act({ do: 'swap-adapter', unit: id })}>Swap its adapter</Button>}
            {has('app') && <Button onClick={() => act({ do: 'app', unit: id })}>Set up by the app</Button>}
            {has('activation') && (
              <Button onClick={() => act({ do: 'activate', unit: id })}>Activate at the provider</Button>
            )}
            {(has('adoption') || (has('own-page') && definition.role === 'controller')) && (
              <Button onClick={() => act({ do: 'adopt', unit: id })}>
                {has('adoption') ? 'Adopt it' : 'Set it up'}
              </Button>
            )}
            {newest.length > 0 && unit.configured && (
              <Button onClick={() => act({ do: 'update', unit: id, version: newest.at(-1)! })}>
                Update to {newest.at(-1)}
              </Button>
            )}
          </div>
          {model.buttons.map(({ id: button, name }) => (
            <HoldButton
              key={button}
              name={name}
              onPress={(seconds) => act({ do: 'press', unit: id, button, seconds })}
            />
          ))}
          <Carry house={house} unit={unit} act={act} />
          <Label unit={unit} />
        </div>
        <div>
          <UnitFront model={model} state={house.shows(id)} />
          <p className="fine mt-1">{powered ? '' : 'not plugged in'}</p>
        </div>
      </div>
      <OwnPages house={house} unit={unit} act={act} />
    </section>
  )
}

/** A button of the unit: held as long as it is held here, or for a length that is chosen. */
function HoldButton({ name, onPress }: { name: string; onPress: (seconds: number) => void }) {
  return (
    <div className="flex flex-wrap items-center gap-2">
      <HeldButton onHeld={onPress}>Hold {name}</HeldButton>
      {([1, 3, 8, 12] as const).map((seconds) => (
        <button
          key={seconds}
          type="button"
          className="chip"
          aria-label={`${name} for ${seconds} s`}
          onClick={() => onPress(seconds)}
        >
          {seconds} s
        </button>
      ))}
    </div>
  )
}

/** Carrying a unit into a room of the house. */
function Carry({ house, unit, act }: { house: House; unit: UnitNow; act: (deed: Deed) => void }) {
  const rooms =
    house.definition.plan?.storeys.flatMap((storey) =>
      storey.rooms.map((room) => ({
        storey: storey.name,
        name: room.name,
        x: room.x + room.widthM / 2,
        y: room.y + room.depthM / 2
      }))
    ) ?? []
  if (rooms.length === 0) return null
  const here = rooms.find(
    (room) => unit.at && room.storey === unit.at.storey && Math.hypot(room.x - unit.at.x, room.y - unit.at.y) < 0.5
  )
  return (
    <Field label="Carry it to">
      <Select
        value={here?.name ?? ''}
        onChange={(event) => {
          const room = rooms.find(({ name }) => name === event.target.value)
          if (room)
            act({
              do: 'carry',
              unit: unit.definition.id,
              to: { storey: room.storey, x: room.x, y: room.y, heightM: 1.2 }
            })
        }}
      >
        {!here && <option value="">where it stands now</option>}
        {rooms.map((room) => (
          <option key={room.name} value={room.name}>
            {room.name}
          </option>
        ))}
      </Select>
    </Field>
  )
}

function Label({ unit }: { unit: UnitNow }) {
  const [login, setLogin] = useState<{ user: string; password: string } | null>(null)
  const id = location.pathname.split('/').at(-1)!
  const turn = () =>
    void ask('GET /houses/:id/units/:unit/label', { params: { id, unit: unit.definition.id } }).then(
      (found) => setLogin(found.login),
      () => undefined
    )
  return (
    <details
      onToggle={(event) => {
        if (event.currentTarget.open) turn()
      }}
    >
      <summary className="min-h-11 py-2">Its label</summary>
      <dl className="exact grid grid-cols-[auto_1fr] gap-x-3 text-sm">
        <dt>serial</dt>
        <dd>{unit.definition.serial}</dd>
        <dt>MAC</dt>
        <dd>{unit.definition.mac}</dd>
        {login && (
          <>
            <dt>login</dt>
            <dd>
              {login.user} / {login.password}
            </dd>
          </>
        )}
      </dl>
    </details>
  )
}

const fieldWords: Record<keyof HouseSettings, string> = {
  mode: 'Mode',
  'lan.address': 'Address',
  'lan.secondary': 'Secondary address',
  'lan.dns': 'Name servers',
  'dhcp.server': 'DHCP server',
  'dhcp.from': 'Pool from',
  'dhcp.to': 'Pool to',
  'dhcp.relay': 'DHCP relay',
  'wifi.ssid': 'Network name',
  'wifi.radio': 'Radio',
  'wifi.2.4.channel': 'Channel at 2.4 GHz',
  'wifi.5.channel': 'Channel at 5 GHz',
  'wifi.6.channel': 'Channel at 6 GHz'
}
const pageWords = { mode: 'Mode', lan: 'Addresses', wifi: 'Wi-Fi' } as const

/** The unit's own pages: each with its own Apply; what was not applied is lost when the pages are left. */
function OwnPages({ house, unit, act }: { house: House; unit: UnitNow; act: (deed: Deed) => void }) {
  const [open, setOpen] = useState(false)
  const { id, role } = unit.definition
  const pages = pagesOf(unit.model, role)
  if (pages.length === 0) return null
  const told = readingOf(house, id)
  const leave = () => {
    act({ do: 'leave', unit: id })
    setOpen(false)
  }
  return (
    <section aria-label="Its own pages" className="mt-4 border-t border-rule pt-3">
      {!open ? (
        <Button disabled={!told} onClick={() => setOpen(true)}>
          {told ? `Open its page at ${told['lan.address'] ?? 'its address'}` : 'Its page does not answer'}
        </Button>
      ) : (
        <>
          <div className="flex flex-wrap items-center gap-3">
            <h3 className="grow">Its own pages</h3>
            <Button onClick={leave}>Leave its pages</Button>
          </div>
          <Problem message={!told && 'Nothing answers any more: it is off or starting.'} />
          {told && (
            <p className="fine">
              {told['device.firmware'] ? `Firmware ${told['device.firmware']}. ` : ''}
              {told['wan.online'] === 'yes' ? 'Online.' : 'No internet.'}
              {told['wifi.clients'] ? ` ${told['wifi.clients']} on its air.` : ''}{' '}
              {house.network.serversOf(id).length > 1 ? (
                <b>
                  Addresses are given by{' '}
                  {house.network
                    .serversOf(id)
                    .map((joined) => house.units.get(joined)!.definition.name)
                    .join(' and ')}
                  .
                </b>
              ) : (
                ''
              )}
            </p>
          )}
          <div className="mt-2 grid gap-4 md:grid-cols-2">
            {pages.map(({ page, fields }) => (
              <OnePage key={page} page={page} fields={fields} unit={unit} act={act} />
            ))}
          </div>
        </>
      )}
    </section>
  )
}

const onOff = ['on', 'off'] as const

/** The settings that are chosen from a list, and what from. */
const choices: Partial<Record<keyof HouseSettings, readonly string[]>> = {
  mode: ['router', 'access-point'],
  'lan.dns': ['provider', 'by-hand'],
  'lan.secondary': onOff,
  'dhcp.server': onOff,
  'dhcp.relay': onOff,
  'wifi.radio': onOff
}

function OnePage({
  page,
  fields,
  unit,
  act
}: {
  page: 'mode' | 'lan' | 'wifi'
  fields: readonly (keyof HouseSettings)[]
  unit: UnitNow
  act: (deed: Deed) => void
}) {
  const { id } = unit.definition
  const draft = unit.drafts[page]
  const value = (field: keyof HouseSettings) => draft?.[field] ?? unit.stored[field] ?? ''
  const set = (field: keyof HouseSettings, to: string) => act({ do: 'set', unit: id, page, values: { [field]: to } })
  const waiting = fields.some((field) => (unit.stored[field] ?? '') !== (unit.running[field] ?? ''))
  return (
    <fieldset className="flex flex-col gap-2 border border-rule p-3">
      <legend className="label px-1">{pageWords[page]}</legend>
      {fields.map((field) => (
        <label key={field} className="grid grid-cols-[7.5rem_minmax(0,1fr)] items-center gap-2">
          {fieldWords[field]}
          {choices[field] ? (
            <Select value={value(field)} onChange={(event) => set(field, event.target.value)}>
              {choices[field].map((choice) => (
                <option key={choice} value={choice}>
                  {choice.replace('-', ' ')}
                </option>
              ))}
            </Select>
          ) : (
            <PageText value={value(field)} onSet={(to) => set(field, to)} />
          )}
        </label>
      ))}
      <div className="flex flex-wrap items-center gap-3">
        <Button disabled={!draft} onClick={() => act({ do: 'apply', unit: id, page })}>
          Apply {pageWords[page]}
        </Button>
        {draft && <b>Not applied yet.</b>}
        {!draft && waiting && <b>Takes effect after a restart.</b>}
      </div>
    </fieldset>
  )
}

/** A field of a page, written when it is left. */
function PageText({ value, onSet }: { value: string; onSet: (value: string) => void }) {
  const [typed, setTyped] = useState(value)
  useEffect(() => setTyped(value), [value])
  return (
    <Input
      exact
      value={typed}
      maxLength={40}
      autoComplete="off"
      onChange={(event) => setTyped(event.target.value)}
      onBlur={() => {
        if (typed !== value) onSet(typed)
      }}
    />
  )
}
