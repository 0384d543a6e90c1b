import { useState } from 'react'
import { format } from 'date-fns'
import { contentsOf } from '@pasado/core/work/units/boxes'
import { standing } from '@pasado/core/record/record'
import { isOnPaper } from '@pasado/core/values/on-paper'
import { accessLines, lineLoads, reasons } from '@pasado/core/record/brief'
import { countryChoices } from '@pasado/core/radio/permissions'
import { permittedBy, unknownCountry } from '@pasado/core/radio/permitted'
import { useDraft } from '../../../app/draft'
import { AskedRules } from '../../frame/AskedRules'
import { ChoiceFact, SelectFact, TextFact, YesNoFact } from '../../fields/FactField'
import { useMayWrite } from '../../session/facts'
import { LeftBefore } from './LeftBefore'
import { AddBox } from '../kit/AddBox'
import { reasonWords } from '../../frame/reason-words'
import { HandOn } from '../../frame/HandOn'
import { HouseOfVisit } from '../../frame/HouseOfVisit'
import { WhatStays } from '../../frame/WhatStays'
import { useVisit } from '../../session/visit-state'
import { write } from '../../session/write'
import { Button } from '../../../ui/Button'
import { Notice } from '../../../ui/Notice'
import { TextArea } from '../../../ui/Field'
import { List } from '../../../ui/List'

const lineWords: Record<(typeof accessLines)[number], string> = {
  coax: 'coax',
  'telephone-line': 'telephone line',
  fibre: 'fibre',
  'fixed-wireless': 'fixed wireless',
  'existing-router': 'existing router stays'
}
const brief = { kind: 'brief', id: 'brief' } as const

/** Brief: before the van leaves. */
export function Brief() {
  const planned = useVisit((state) => state.record.brief.facts.plannedAt)
  const telephone = useVisit(
    (state) => state.record.brief.facts.accessLine === 'telephone-line' || state.record.brief.facts.telephone === true
  )
  return (
    <div className="p-4 lg:p-5">
      <div className="flex flex-wrap items-baseline justify-between gap-2">
        <h2 className="text-xl">Brief</h2>
        <div className="flex flex-wrap items-center gap-x-4">
          {planned && <p className="text-soft">Planned {format(new Date(planned), 'EEEE d MMMM, HH:mm')}</p>}
          <HandOn />
        </div>
      </div>
      <LeftBefore />
      <div className="mt-3 grid gap-x-8 gap-y-3 xl:grid-cols-2">
        <section aria-label="Who and where" className="flex flex-col gap-3">
          <TextFact {...brief} field="customerName" label="Customer" />
          <NameOnPaper />
          <div className="grid gap-3 sm:grid-cols-[3fr_2fr]">
            <TextFact {...brief} field="street" label="Street" />
            <TextFact {...brief} field="town" label="Town or island" />
          </div>
          <Country />
          <div className="grid gap-3 sm:grid-cols-[2fr_3fr]">
            <TextFact {...brief} field="phone" label="Telephone" exact />
            <TextFact
              {...brief}
              field="secondContact"
              label="Second way to reach them"
              hint="While the line is down."
            />
          </div>
          <ChoiceFact
            {...brief}
            field="reason"
            label="Why"
            options={reasons.map((value) => ({ value, label: reasonWords[value] }))}
          />
        </section>
        <section aria-label="What comes in" className="flex flex-col gap-3">
          <ChoiceFact
            {...brief}
            field="accessLine"
            label="Access line"
            options={accessLines.map((value) => ({ value, label: lineWords[value] }))}
          />
          <div className="grid grid-cols-2 gap-3">
            <TextFact {...brief} field="speedDownMbps" label="Paid for, down" type="number" unit="Mbit/s" />
            <TextFact {...brief} field="speedUpMbps" label="Paid for, up" type="number" unit="Mbit/s" />
          </div>
          <div className="grid gap-3 sm:grid-cols-[3fr_2fr]">
            <ChoiceFact
              {...brief}
              field="providerSettings"
              label="Provider’s settings"
              options={[
                { value: 'automatic', label: 'automatic' },
                { value: 'login', label: 'login' },
                { value: 'fixed', label: 'fixed address' }
              ]}
            />
            <YesNoFact {...brief} field="telephone" label="Telephone through it" />
          </div>
        </section>
      </div>
      {telephone && <OnTheLine />}
      <WhatStays className="mt-4 border-t border-rule pt-3" />
      <KitsOut />
      <div className="mt-4">
        <AskedRules stage="brief" />
      </div>
      <details className="mt-4">
        <summary className="min-h-11 py-2 font-bold">Schools for this visit</summary>
        <div className="flex flex-col gap-3 pt-2">
          <ChoiceFact
            {...brief}
            field="bandNames"
            label="Network names"
            options={[
              { value: 'one-name', label: 'one name for all bands' },
              { value: 'one-a-band', label: 'one name a band' }
            ]}
            hint="Only where this visit differs from the standard."
          />
          <TextFact {...brief} field="doubleNatReason" label="Why two translations are right here" />
        </div>
      </details>
      <NothingInstalled />
      <Notes />
      <HouseOfVisit />
    </div>
  )
}

/** The country of the home, which says on which channels it may be sent; where that is written stands under it. */
function Country() {
  const country = useVisit((state) => state.record.brief.facts.country)
  return (
    <SelectFact
      {...brief}
      field="country"
      label="Country"
      none="not recorded"
      options={countryChoices(country)}
      hint={unknownCountry(country)?.what ?? `Permitted channels of ${permittedBy(country)!}.`}
    />
  )
}

/** What hangs on a telephone line is asked before anything is unplugged: with the caution, what was answered, and who was told. */
function OnTheLine() {
  const carries = useVisit((state) => state.record.brief.facts.lineCarries)
  return (
    <section aria-label="On the telephone line" className="mt-4 flex flex-col gap-3">
      <Notice as="p" edge="ink">
        <b>Caution.</b> A telephone line carries ringing voltage. An alarm, a pendant, a lift or a fax may hang on it:
        ask before you unplug anything. Wiring in the wall is for a licensed trade; follow the local code.
      </Notice>
      <ChoiceFact
        {...brief}
        field="lineCarries"
        label="Asked: what else hangs on the line"
        options={lineLoads.map((value) => ({ value, label: value }))}
      />
      {carries !== undefined && carries !== 'nothing' && (
        <TextFact
          {...brief}
          field="lineTold"
          label="Who was told"
          hint="The line is down meanwhile: whoever relies on it has to know."
        />
      )}
    </section>
  )
}

/** Asked where paper cannot show the customer's name as it is written. */
function NameOnPaper() {
  const name = useVisit((state) => state.record.brief.facts.customerName)
  if (name === undefined || isOnPaper(name)) return null
  return (
    <TextFact
      {...brief}
      field="nameOnPaper"
      label="The customer’s name on paper"
      hint={<b>Paper cannot show this name. Write it in Latin, Greek or Cyrillic letters as well.</b>}
    />
  )
}

/** A visit that ended without a unit says why: a survey, nobody at home. Not asked where one stands. */
function NothingInstalled() {
  const isAsked = useVisit(
    ({ record }) => standing(record.units).length === 0 || record.brief.facts.noUnitReason !== undefined
  )
  if (!isAsked) return null
  return (
    <details className="mt-4">
      <summary className="min-h-11 py-2 font-bold">The visit ended without a unit</summary>
      <div className="pt-2">
        <TextFact
          {...brief}
          field="noUnitReason"
          label="Why nothing was installed"
          hint="A survey, nobody at home, the line was not ready. Without a unit or a reason the visit cannot be sealed."
        />
      </div>
    </details>
  )
}

/** Which boxes go into the van. */
function KitsOut() {
  const boxes = standing(useVisit((state) => state.record.boxes) ?? {})
  const catalogue = useVisit((state) => state.catalogue)
  const mayWrite = useMayWrite()
  const [adding, setAdding] = useState(false)
  return (
    <section aria-label="Kits that go out" className="mt-4 border-t border-rule pt-3">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <h3 className="label">Kits that go out</h3>
        <ul className="flex grow flex-wrap gap-2">
          {boxes.map((box) => {
            const title = contentsOf(box, catalogue)?.title ?? 'a box the catalogue does not hold'
            return (
              <li key={box.id} className="flex items-center border border-edge pl-3">
                <span>{title}</span>
                {mayWrite ? (
                  <button
                    type="button"
                    className="min-h-11 min-w-11 text-lg"
                    aria-label={`Leave it here: ${title}`}
                    onClick={() => write('thing.removed', { thing: 'box', id: box.id })}
                  >
                    ×
                  </button>
                ) : (
                  <span className="w-3" />
                )}
              </li>
            )
          })}
          {boxes.length === 0 && <li className="text-soft">None yet.</li>}
        </ul>
        {mayWrite && <Button onClick={() => setAdding(true)}>Add a box</Button>}
      </div>
      <AddBox open={adding} onClose={() => setAdding(false)} onAdded={() => undefined} />
    </section>
  )
}

function Notes() {
  const notes = useVisit((state) => state.record.notes)
  const mayWrite = useMayWrite()
  const [text, setText] = useDraft(`note ${useVisit((state) => state.id)}`, '')
  return (
    <section aria-label="Notes" className="mt-4" data-place="brief.brief.note">
      {mayWrite && (
        <form
          onSubmit={(event) => {
            event.preventDefault()
            if (text.trim()) {
              write('note.written', { text: text.trim() })
              setText('')
            }
          }}
          className="flex flex-wrap items-end gap-2"
        >
          <div className="grow basis-64">
            <label className="label" htmlFor="note">
              Note
            </label>
            <TextArea
              id="note"
              rows={1}
              className="mt-1"
              maxLength={2000}
              value={text}
              onChange={(event) => setText(event.target.value)}
            />
          </div>
          <Button type="submit" disabled={!text.trim()}>
            Write it down
          </Button>
        </form>
      )}
      <List className="mt-2">
        {notes.toReversed().map((note) => (
          <li key={note.seq} className="py-2">
            <p className="whitespace-pre-wrap">{note.text}</p>
            <p className="fine">
              {note.by.name}, {format(new Date(note.at), 'd MMM HH:mm')}
            </p>
          </li>
        ))}
      </List>
    </section>
  )
}
