import { Tick } from '../../../ui/Tick'
import { useEffect, useId, useRef, useState } from 'react'
import { labelFieldWords, secretLabelFields } from '@pasado/core/labels/fields'
import type { LabelOddity, ParsedLabel } from '@pasado/core/labels/parse'
import type { Piece, Trust } from '@pasado/core/labels/reading'
import type { Model } from '@pasado/core/catalogue/model'
import { standing, unitName, type Unit } from '@pasado/core/record/record'
import type { Look } from '../../../outbox/outbox'
import { readyToSend } from '../../../labels/picture-file'
import { photoForVisit, secretForVault, write } from '../../session/write'
import { useVisit } from '../../session/visit-state'
import { factOf, purposeOf, rowProblem, rowsOf, twinOf, type LabelRow } from './label-rows'
import { Button } from '../../../ui/Button'
import { Problem } from '../../../ui/Problem'
import { List } from '../../../ui/List'
import { Input } from '../../../ui/Field'

const trustWords: Record<Trust, string> = { certain: 'certain', likely: 'likely', unsure: 'look again' }
const sourceWords = {
  qr: 'from its QR code',
  bars: 'from its bar code',
  print: 'from its print',
  pasted: 'as pasted'
} as const

interface Picture {
  photo: Blob
  width: number
  height: number
}

/** What was found on a label, each value with where it was read, to accept or correct. */
export function LabelValues({
  unit,
  model,
  found,
  picture,
  from,
  look,
  onAgain,
  onDone
}: {
  unit: Unit
  model: Model | null
  found: ParsedLabel
  picture: Picture | null
  from: string
  look: Look
  onAgain: () => void
  onDone: () => void
}) {
  const units = standing(useVisit((state) => state.record.units))
  const visit = useVisit((state) => state.id)
  const [rows, setRows] = useState(() => rowsOf(found, model?.label ?? []))
  const [keepPhoto, setKeepPhoto] = useState(true)
  const bitmap = useBitmap(picture)
  const change = (at: number, to: Partial<LabelRow>) =>
    setRows((before) => before.map((row, index) => (index === at ? { ...row, ...to } : row)))
  const taken = rows.filter((row) => row.taken)
  const wrong = taken.some((row) => rowProblem(row) !== null)
  const takeOver = async () => {
    if (wrong || taken.length === 0 || !visit) return
    const set = Object.fromEntries(
      taken.flatMap(({ field, value }) => (factOf[field] ? [[factOf[field], value.trim()]] : []))
    )
    if (Object.keys(set).length) write('unit.set', { id: unit.id, set, origin: 'label' }, { look })
    for (const { field, value } of taken)
      if (secretLabelFields.has(field))
        secretForVault(
          { purpose: purposeOf[field as 'key'], thing: 'unit', id: unit.id, origin: 'label' },
          value.trim(),
          look
        )
    if (picture && keepPhoto)
      await readyToSend(picture.photo).then(
        (photo) => photoForVisit({ thing: 'unit', about: unit.id, label: 'yes' }, photo, look),
        () => undefined
      )
    onDone()
  }
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault()
        void takeOver()
      }}
    >
      {found.oddities.map((oddity) => (
        <p key={oddity.code} role="alert" className="mb-3 bg-inv p-3 text-oninv">
          <Odd oddity={oddity} model={model} />
        </p>
      ))}
      {rows.length > 0 && (
        <List aria-label="Values of the label" framed>
          {rows.map((row, at) => (
            <Row
              key={row.field}
              row={row}
              bitmap={bitmap}
              scale={picture && bitmap ? bitmap.width / picture.width : 1}
              twin={twinOf(row, unit, units)}
              onChange={(to) => change(at, to)}
            />
          ))}
        </List>
      )}
      {picture && (
        <Tick className="mt-3" checked={keepPhoto} onTick={(checked) => setKeepPhoto(checked)}>
          Keep the photo in the vault: a label’s photo is a secret, as what stands on it is.
        </Tick>
      )}
      <div className="sticky -bottom-4 -mx-4 mt-3 flex flex-wrap items-center gap-2 border-t border-rule bg-sheet px-4 py-3">
        <Button type="submit" kind="main" disabled={taken.length === 0 || wrong}>
          Take over {taken.length} {taken.length === 1 ? 'value' : 'values'}
        </Button>
        <Button onClick={onAgain}>Read it again</Button>
        <p className="fine">Read from {from}. Only what is ticked is taken over.</p>
      </div>
    </form>
  )
}

function Odd({ oddity, model }: { oddity: LabelOddity; model: Model | null }) {
  if (oddity.code === 'two-macs')
    return (
      <>
        <b>Two MAC addresses stand on this label:</b> <span className="exact">{oddity.values.join(' and ')}</span>. Take
        the one of the unit’s own page, mostly the LAN’s.
      </>
    )
  if (oddity.code === 'another-model')
    return (
      <>
        <b>This looks like the label of another unit:</b> {oddity.read}
        {model && (
          <>
            , and this one is a {model.maker} {model.name}
          </>
        )}
        . Make sure that it is this unit’s own label.
      </>
    )
  return (
    <>
      <b>No value was found.</b> Take the photo again, closer and without glare, paste the text, or put this away and
      type.
    </>
  )
}

function Row({
  row,
  bitmap,
  scale,
  twin,
  onChange
}: {
  row: LabelRow
  bitmap: ImageBitmap | null
  scale: number
  twin: Unit | null
  onChange: (to: Partial<LabelRow>) => void
}) {
  const inputId = useId()
  const { field, proposal, value, taken, corrected } = row
  const name = labelFieldWords[field]
  const problem = taken ? rowProblem(row) : null
  const isOdd = proposal?.trust === 'unsure' && proposal.source !== 'print' && proposal.others.length === 0
  let trust = 'not found: type it from the label'
  if (corrected) trust = 'as you typed it'
  else if (proposal)
    trust = `${isOdd ? 'look again: not the usual form' : trustWords[proposal.trust]}, ${sourceWords[proposal.source]}`
  return (
    <li className="grid grid-cols-[44px_minmax(0,1fr)] items-start gap-x-2 gap-y-1 py-2 sm:grid-cols-[44px_minmax(0,15rem)_minmax(0,1fr)]">
      <span className="row-span-3 flex min-h-11 items-center sm:row-span-1">
        <input
          type="checkbox"
          className="size-6 accent-plum"
          aria-label={`Take over: ${name}`}
          checked={taken}
          onChange={(event) => onChange({ taken: event.target.checked })}
        />
      </span>
      <div className="min-w-0" data-secret={secretLabelFields.has(field) || undefined}>
        {proposal?.piece && bitmap ? (
          <PieceOf bitmap={bitmap} piece={proposal.piece} scale={scale} name={name} />
        ) : (
          <span className="fine hidden sm:block">{proposal ? 'no picture' : ''}</span>
        )}
      </div>
      <div className="col-start-2 min-w-0 sm:col-start-3">
        <div className="flex flex-wrap items-baseline justify-between gap-x-3">
          <label className="label" htmlFor={inputId}>
            {name}
          </label>
          <span
            id={`${inputId}-trust`}
            className={proposal?.trust === 'unsure' && !corrected ? 'text-sm font-bold' : 'fine'}
          >
            {trust}
          </span>
        </div>
        <Input
          id={inputId}
          exact
          className="mt-1 text-lg"
          value={value}
          autoComplete="off"
          autoCapitalize="none"
          spellCheck={false}
          data-secret={secretLabelFields.has(field) || undefined}
          aria-invalid={problem !== null}
          aria-describedby={`${inputId}-trust`}
          onChange={(event) =>
            onChange({ value: event.target.value, corrected: true, taken: event.target.value.trim() !== '' })
          }
        />
        <Problem message={problem && `${name} ${problem}`} className="mt-1" />
        {twin && (
          <p role="alert" className="mt-1 bg-inv p-2 text-sm font-bold text-oninv">
            {unitName(twin)} has this very {field === 'mac' ? 'MAC address' : 'serial'} already: is this the label of
            that unit?
          </p>
        )}
        {proposal && proposal.others.length > 0 && !corrected && proposal.trust !== 'certain' && (
          <p className="mt-1 flex flex-wrap items-center gap-2" data-secret={secretLabelFields.has(field) || undefined}>
            <span className="fine">or</span>
            {proposal.others.slice(0, 3).map((other) => (
              <button
                key={other}
                type="button"
                className="chip exact min-h-11"
                aria-label={`${name} is rather ${other}`}
                onClick={() => onChange({ value: other, corrected: true, taken: true })}
              >
                <Differing from={proposal.value} to={other} />
              </button>
            ))}
          </p>
        )}
      </div>
    </li>
  )
}

/** Another reading, with the characters that differ underlined. */
function Differing({ from, to }: { from: string; to: string }) {
  return (
    <span>
      {[...to].map((character, at) => (
        <span key={at} className={character === from[at] ? '' : 'font-bold underline decoration-2 underline-offset-4'}>
          {character}
        </span>
      ))}
    </span>
  )
}

/** The piece of the picture that a value was read from. */
function PieceOf({ bitmap, piece, scale, name }: { bitmap: ImageBitmap; piece: Piece; scale: number; name: string }) {
  const canvas = useRef<HTMLCanvasElement>(null)
  useEffect(() => {
    const pen = canvas.current?.getContext('2d')
    if (!pen || !canvas.current) return
    const room = piece.height * 0.35
    const [x, y, width, height] = [piece.x - room, piece.y - room, piece.width + room * 2, piece.height + room * 2].map(
      (value) => value * scale
    ) as [number, number, number, number]
    const shrink = Math.min(1, 960 / width, 260 / height)
    canvas.current.width = Math.max(1, Math.round(width * shrink))
    canvas.current.height = Math.max(1, Math.round(height * shrink))
    pen.drawImage(bitmap, x, y, width, height, 0, 0, canvas.current.width, canvas.current.height)
  }, [bitmap, piece, scale])
  return (
    <canvas
      ref={canvas}
      role="img"
      aria-label={`${name} on the label`}
      className="max-h-24 w-full border border-rule object-contain object-left"
    />
  )
}

function useBitmap(picture: Picture | null): ImageBitmap | null {
  const [bitmap, setBitmap] = useState<ImageBitmap | null>(null)
  useEffect(() => {
    let left = false
    let made: ImageBitmap | null = null
    if (picture)
      void createImageBitmap(picture.photo, { imageOrientation: 'from-image' }).then(
        (drawn) => {
          made = drawn
          if (left) drawn.close()
          else setBitmap(drawn)
        },
        () => undefined
      )
    return () => {
      left = true
      made?.close()
    }
  }, [picture])
  return bitmap
}
