import { useEffect, useId, useMemo, useRef, useState } from 'react'
import { Camera, ClipboardPaste, ImageUp } from 'lucide-react'
import { newestModels, type Model } from '@pasado/core/catalogue/model'
import { parseLabel, type ParsedLabel } from '@pasado/core/labels/parse'
import type { Unit } from '@pasado/core/record/record'
import { knownModels } from '@pasado/core/labels/known-models'
import { MOST_OCTETS } from '../../../labels/picture-file'
import { readLabel, type ReadingStep } from '../../../labels/read-label'
import { Sheet } from '../../../ui/Sheet'
import { eyesFor, NoPicture, warmUp } from '../../../workers/label'
import type { Look } from '../../../outbox/outbox'
import { takeLook } from '../../session/record-now'
import { useVisit } from '../../session/visit-state'
import { LabelValues } from './LabelValues'
import { LiveCamera } from './LiveCamera'
import { Button } from '../../../ui/Button'
import { FileButton } from '../../../ui/FileButton'
import { Notice } from '../../../ui/Notice'
import { TextArea } from '../../../ui/Field'

const stepWords: Record<ReadingStep, string> = {
  codes: 'Looking for codes …',
  print: 'Reading the print …',
  again: 'Reading it a second time, to be sure …'
}

/** A label that was read: what was found, and the picture it was found on. */
interface ReadOff {
  parsed: ParsedLabel
  picture: { photo: Blob; width: number; height: number } | null
  from: string
  /** What had been seen of the visit when the picture was made. */
  look: Look
}

/** Reads a unit's label from a photo, the live camera or pasted text. All of it happens on this device. */
export function LabelSheet({ unit, model, onClose }: { unit: Unit; model: Model | null; onClose: () => void }) {
  const catalogue = useVisit((state) => state.catalogue)
  const models = useMemo(() => knownModels(newestModels(catalogue.values()).values()), [catalogue])
  const own = useMemo(() => (model ? { model: knownModels([model])[0]!, fields: model.label } : null), [model])
  const [way, setWay] = useState<'choose' | 'camera' | 'paste'>('choose')
  const [step, setStep] = useState<ReadingStep | null>(null)
  const [problem, setProblem] = useState<string | null>(null)
  const [found, setFound] = useState<ReadOff | null>(null)
  const turn = useRef(0)
  useEffect(warmUp, [])
  const begin = () => {
    setFound(null)
    setProblem(null)
    setWay('choose')
  }
  const readPhoto = async (photo: Blob, from: string) => {
    const mine = ++turn.current
    const look = takeLook()
    setWay('choose')
    setFound(null)
    setProblem(null)
    if (photo.size > MOST_OCTETS) {
      setProblem(
        `This picture is larger than 12 MB (${(photo.size / 1024 / 1024).toFixed(1)} MB). Take it at a lower resolution.`
      )
      return
    }
    const eyes = eyesFor(photo)
    try {
      const parsed = await readLabel(eyes, models, own, (now) => {
        if (turn.current === mine) setStep(now)
      })
      if (turn.current === mine) setFound({ parsed, picture: { photo, ...eyes.size() }, from, look })
    } catch (error) {
      if (turn.current === mine)
        setProblem(
          error instanceof NoPicture
            ? 'This is not a picture that can be opened here. Choose a JPEG, PNG or WebP.'
            : 'The print could not be read. Paste the text of the label, or type it.'
        )
    } finally {
      if (turn.current === mine) setStep(null)
    }
  }
  const readText = (text: string) => {
    const readings = text.split(/\r?\n/).map((line) => ({ source: 'pasted' as const, text: line, sureness: 1 }))
    setFound({
      parsed: parseLabel(readings, models, own?.model ?? null),
      picture: null,
      from: 'pasted text',
      look: takeLook()
    })
    setWay('choose')
  }
  return (
    <Sheet
      open
      onClose={onClose}
      title={`Label of ${unit.facts.name ?? model?.name ?? 'this unit'}`}
      description={
        found
          ? 'Compare each value with the label, correct what is wrong, and take them over.'
          : 'Nothing of it leaves this device until you take it over.'
      }
      wide
    >
      {step && (
        <Notice role="status" as="p" edge="plum" className="text-lg">
          {stepWords[step]}
        </Notice>
      )}
      {problem && (
        <p role="alert" className="mb-3 bg-inv p-3 font-bold text-oninv">
          {problem}
        </p>
      )}
      {found && (
        <LabelValues
          key={turn.current}
          unit={unit}
          model={model}
          found={found.parsed}
          picture={found.picture}
          from={found.from}
          look={found.look}
          onAgain={begin}
          onDone={onClose}
        />
      )}
      {!found && !step && way === 'choose' && (
        <Ways
          onPhoto={(file) => void readPhoto(file, 'photo')}
          onCamera={() => setWay('camera')}
          onPaste={() => setWay('paste')}
        />
      )}
      {!found && !step && way === 'camera' && (
        <LiveCamera onPicture={(photo) => void readPhoto(photo, 'camera')} onLeave={() => setWay('choose')} />
      )}
      {!found && !step && way === 'paste' && <Paste onText={readText} onLeave={() => setWay('choose')} />}
    </Sheet>
  )
}

function Ways({
  onPhoto,
  onCamera,
  onPaste
}: {
  onPhoto: (file: File) => void
  onCamera: () => void
  onPaste: () => void
}) {
  return (
    <div className="grid gap-3 sm:grid-cols-3">
      <FileButton
        accept="image/jpeg,image/png,image/webp,image/heic,image/heif,image/*"
        className="min-h-24 flex-col"
        onFile={onPhoto}
      >
        <ImageUp aria-hidden size={28} />
        Take or choose a photo
      </FileButton>
      <Button className="min-h-24 flex-col" onClick={onCamera}>
        <Camera aria-hidden size={28} />
        Point the camera at it
      </Button>
      <Button className="min-h-24 flex-col" onClick={onPaste}>
        <ClipboardPaste aria-hidden size={28} />
        Paste its text
      </Button>
      <p className="fine sm:col-span-3">
        Fill the picture with the label, straight and without glare. The codes on it are read first, then its print. Or
        put this away and type.
      </p>
    </div>
  )
}

function Paste({ onText, onLeave }: { onText: (text: string) => void; onLeave: () => void }) {
  const [text, setText] = useState('')
  const inputId = useId()
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault()
        if (text.trim()) onText(text)
      }}
    >
      <label className="label" htmlFor={inputId}>
        Everything that stands on the label
      </label>
      <TextArea
        id={inputId}
        exact
        className="mt-1 min-h-48"
        autoFocus
        spellCheck={false}
        autoCapitalize="none"
        autoComplete="off"
        maxLength={8000}
        data-secret
        value={text}
        onChange={(event) => setText(event.target.value)}
        placeholder={'S/N …\nMAC …\nNetwork name …'}
      />
      <div className="mt-2 flex flex-wrap gap-2">
        <Button type="submit" kind="main" disabled={!text.trim()}>
          Find the values
        </Button>
        <Button kind="quiet" onClick={onLeave}>
          Another way
        </Button>
      </div>
    </form>
  )
}
