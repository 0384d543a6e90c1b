import { isPrivate, parseIpv4 } from '@pasado/core/values/ipv4'
import type { Model } from '@pasado/core/catalogue/model'
import { fitsMask } from '@pasado/core/values/mask'
import { Suspense, useState } from 'react'
import { laterPart } from '../../../app/script-part'
import { ScanLine } from 'lucide-react'
import { type Unit, standing } from '@pasado/core/record/record'
import { contentsOf } from '@pasado/core/work/units/boxes'
import { SelectFact, TextFact, YesNoFact } from '../../fields/FactField'
import { useMayWrite } from '../../session/facts'
import { Photos } from '../../frame/Photos'
import { SecretFact } from '../../fields/SecretFact'
import { useVisit } from '../../session/visit-state'
import { AdapterCheck } from './AdapterCheck'
import { Elsewhere } from './Elsewhere'
import { FirmwareOnBox } from './FirmwareOnBox'
import { ModelVersion } from './ModelVersion'
import { RoleChoice } from './RoleChoice'
import { useModelOf } from './catalogue'
import { Spare } from './Spares'
import { Button } from '../../../ui/Button'
import { Notice } from '../../../ui/Notice'
import { ItStays } from '../../frame/ItIsOurs'
import { TakeOut } from '../../frame/TakeOut'

/** With what reads codes and print, which weighs more than all the rest of the stage. */
const LabelSheet = laterPart(async () => (await import('./LabelSheet')).LabelSheet)

/** Whether the address of a unit's own page is a public one: mostly a slip, 192.169 for 192.168. */
function isPublicPage(page: string | undefined): boolean {
  const address = /\d{1,3}(?:\.\d{1,3}){3}/.exec(page ?? '')?.[0]
  const number = address === undefined ? null : parseIpv4(address)
  return number !== null && !isPrivate(number)
}

/** One unit: its label, its adapter, its firmware and its role. */
export function UnitKit({ unit }: { unit: Unit }) {
  const model = useModelOf(unit)
  const mayWrite = useMayWrite()
  const [reading, setReading] = useState(false)
  const field = { kind: 'unit', id: unit.id } as const
  return (
    <div>
      <div className="flex flex-wrap items-center justify-between gap-x-4 gap-y-2">
        <div>
          <h2 className="text-xl">{unit.facts.name ?? model?.name}</h2>
          <p className="text-soft">{model ? `${model.maker} ${model.name}` : 'model not in the catalogue'}</p>
        </div>
        {mayWrite && (
          <Button kind="main" onClick={() => setReading(true)}>
            <ScanLine aria-hidden size={20} />
            Read its label
          </Button>
        )}
      </div>
      {model?.twin && (
        <Notice as="p" edge="plum" small className="mt-2">
          {model.twin}
        </Notice>
      )}
      {model && <ModelVersion unit={unit} model={model} />}
      <Elsewhere unit={unit} />
      <div className="mt-3 grid gap-x-7 gap-y-4 xl:grid-cols-2">
        <LabelFields unit={unit} model={model} />
        <section aria-label="Unit" className="flex flex-col gap-3">
          <TextFact {...field} field="name" label="Name" hint="As the customer will find it: by its room." />
          {model && <RoleChoice unit={unit} model={model} />}
          {model && <AdapterCheck unit={unit} model={model} />}
          {model && <FirmwareOnBox unit={unit} model={model} />}
          <WhereItCameFrom unit={unit} />
        </section>
      </div>
      {mayWrite && (
        <p className="mt-5 flex flex-wrap gap-x-4">
          <TakeOut thing="unit" className="-ml-2" id={unit.id}>
            Take this unit out of the visit
          </TakeOut>
          {unit.facts.box !== undefined && <Spare unit={unit} />}
          <ItStays id={unit.id} />
        </p>
      )}
      {reading && (
        <Suspense>
          <LabelSheet unit={unit} model={model ?? null} onClose={() => setReading(false)} />
        </Suspense>
      )}
    </div>
  )
}

/** What stands on a unit's label: each field that labels of its model have. */
function LabelFields({ unit, model }: { unit: Unit; model: Model | undefined }) {
  const field = { kind: 'unit', id: unit.id } as const
  const label = new Set(model?.label ?? [])
  const { serial } = unit.facts
  const mask = model?.masks?.serial
  const isOdd = mask !== undefined && serial !== undefined && !fitsMask(mask, serial)
  return (
    <section aria-label="Label" className="flex flex-col gap-3">
      <TextFact
        {...field}
        field="serial"
        label="Serial"
        exact
        hint={
          isOdd ? (
            <b>It does not look as serials of this model do: look at the label again, 0 or O, 1 or I.</b>
          ) : undefined
        }
      />
      <TextFact
        {...field}
        field="mac"
        label="MAC address"
        exact
        suggest={(typed) =>
          /[oOlI]/.test(typed) && typed.length > 10
            ? { label: 'Use 0 for O and 1 for l or I', value: typed.replace(/[oO]/g, '0').replace(/[lI]/g, '1') }
            : null
        }
      />
      {label.has('ssid') && <TextFact {...field} field="defaultSsid" label="Network name" exact />}
      {label.has('address') && (
        <TextFact
          {...field}
          field="pageAddress"
          label="Own page"
          exact
          hint={
            isPublicPage(unit.facts.pageAddress) ? (
              <b>That is a public address: a page of its own is mostly at 192.168… Look at the label again.</b>
            ) : undefined
          }
        />
      )}
      <div className="grid gap-3 sm:grid-cols-2">
        {label.has('key') && <SecretFact purpose="label-key" thing="unit" id={unit.id} label="Network key" />}
        {label.has('setup-code') && <SecretFact purpose="setup-code" thing="unit" id={unit.id} label="Setup code" />}
        {label.has('login') && <SecretFact purpose="label-login" thing="unit" id={unit.id} label="Login" />}
      </div>
      <div className="mt-1">
        <Photos about={{ thing: 'unit', id: unit.id }} />
      </div>
    </section>
  )
}

/** New out of which box, or used before and reset. */
function WhereItCameFrom({ unit }: { unit: Unit }) {
  const field = { kind: 'unit', id: unit.id } as const
  const boxes = useVisit((state) => state.record.boxes)
  const catalogue = useVisit((state) => state.catalogue)
  return (
    <div className="grid gap-3 sm:grid-cols-[auto_minmax(0,1fr)]">
      <YesNoFact {...field} field="used" label="Used before" yes="Used" no="New" />
      {unit.facts.stayed && <p className="fine self-center">It stood here before this visit.</p>}
      {!unit.facts.stayed && unit.facts.used && <YesNoFact {...field} field="wasReset" label="Factory-reset first" />}
      {!unit.facts.stayed && !unit.facts.used && (
        <SelectFact
          {...field}
          field="box"
          label="Out of the box"
          none="no box of this visit"
          options={standing(boxes ?? {}).map((box) => ({
            value: box.id,
            label: contentsOf(box, catalogue)?.title ?? 'a box'
          }))}
        />
      )}
    </div>
  )
}
