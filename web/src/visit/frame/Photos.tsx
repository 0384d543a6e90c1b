import { format } from 'date-fns'
import { ImagePlus } from 'lucide-react'
import { useId, useState } from 'react'
import { revealReasons, type RevealReason } from '@pasado/core/record/answers'
import { photosOf, type Photo } from '@pasado/core/record/record'
import { fetchFile, failureTitle } from '../../app/api'
import { withPassword } from '../../app/password-again'
import { PictureProblem, readyToSend } from '../../labels/picture-file'
import { Sheet } from '../../ui/Sheet'
import { useObjectUrl } from '../../ui/use-object-url'
import { putRowAway, useOutbox, type Look, type OutboxRow } from '../../outbox/outbox'
import { useMayWrite } from '../session/facts'
import { photoForVisit, write } from '../session/write'
import { takeLook } from '../session/record-now'
import { useVisit } from '../session/visit-state'
import { Button } from '../../ui/Button'
import { Problem } from '../../ui/Problem'
import { FileButton } from '../../ui/FileButton'
import { Input } from '../../ui/Field'

const SHOWN_MS = 45_000

/** Photos of a unit, a stage or a rule: those that are kept, those on their way, and one more. */
export function Photos({
  about,
  label = 'Photos',
  add = 'Add a photo'
}: {
  about: Photo['about']
  label?: string
  add?: string
}) {
  const kept = useVisit((state) => state.record.photos)
  const visit = useVisit((state) => state.id)
  const mayWrite = useMayWrite()
  const boxed = useOutbox((state) => state.rows).filter(
    ({ visit: of, item }) =>
      of === visit &&
      item.kind === 'photo' &&
      !Object.hasOwn(kept ?? {}, item.ref) &&
      item.fields.thing === about.thing &&
      item.fields.about === about.id
  )
  const photos = photosOf({ photos: kept }).filter(
    (candidate) => candidate.about.thing === about.thing && candidate.about.id === about.id
  )
  const [chosen, setChosen] = useState<{ photo: Blob; look: Look } | null>(null)
  const [problem, setProblem] = useState<string | null>(null)
  const [open, setOpen] = useState<Photo | null>(null)
  const choose = (file: File) => {
    setProblem(null)
    const look = takeLook()
    readyToSend(file).then(
      (photo) => setChosen({ photo, look }),
      (error: unknown) =>
        setProblem(
          error instanceof PictureProblem
            ? `${file.name} ${error.message}.`
            : `${file.name} cannot be used; take it again.`
        )
    )
  }
  if (!mayWrite && photos.length === 0) return null
  return (
    <section aria-label={label}>
      <div className="flex flex-wrap items-center gap-3">
        <h3 className="label">{label}</h3>
        {mayWrite && (
          <FileButton accept="image/*" onFile={choose}>
            <ImagePlus aria-hidden size={20} />
            {add}
          </FileButton>
        )}
      </div>
      <Problem message={problem} className="mt-2" />
      {chosen && visit && (
        <Caption
          photo={chosen.photo}
          onLeave={() => setChosen(null)}
          onKeep={(caption) => {
            void photoForVisit(
              { thing: about.thing, about: about.id, label: 'no', ...(caption ? { caption } : {}) },
              chosen.photo,
              chosen.look
            )
            setChosen(null)
          }}
        />
      )}
      <ul className="mt-2 flex flex-wrap gap-3">
        {boxed.map((row) => (
          <OnItsWay key={row.key} row={row} />
        ))}
        {photos.map((photo) => (
          <li key={photo.ref} className="w-36">
            <button
              type="button"
              className="block w-full text-left"
              aria-label={`Open: ${photo.label ? 'photo of the label' : (photo.caption ?? 'photo')}`}
              onClick={() => setOpen(photo)}
            >
              {photo.label ? (
                <span className="flex aspect-[4/3] items-center justify-center border-2 border-dashed border-edge bg-well p-2 text-center text-sm">
                  Label, in the vault
                </span>
              ) : (
                <img
                  className="aspect-[4/3] w-full border border-rule object-cover"
                  alt={photo.caption ?? ''}
                  loading="lazy"
                  src={`/api/visits/${visit}/photos/${photo.ref}?size=small`}
                />
              )}
              <span className="fine line-clamp-2">{photo.caption ?? format(new Date(photo.at), 'd MMM HH:mm')}</span>
            </button>
          </li>
        ))}
      </ul>
      {open && <OnePhoto photo={open} onClose={() => setOpen(null)} />}
    </section>
  )
}

function Caption({ photo, onKeep, onLeave }: { photo: Blob; onKeep: (caption: string) => void; onLeave: () => void }) {
  const url = useObjectUrl(photo)
  const [caption, setCaption] = useState('')
  const inputId = useId()
  return (
    <form
      className="mt-2 flex flex-wrap items-start gap-3 border-l-4 border-plum bg-well p-3"
      onSubmit={(event) => {
        event.preventDefault()
        onKeep(caption.trim())
      }}
    >
      {url && <img src={url} alt="Preview" className="h-28 border border-rule object-contain" />}
      <div className="min-w-0 grow basis-56">
        <label className="label" htmlFor={inputId}>
          What does it show?
        </label>
        <Input
          id={inputId}
          className="mt-1"
          maxLength={200}
          autoFocus
          autoComplete="off"
          value={caption}
          onChange={(event) => setCaption(event.target.value)}
        />
        <div className="mt-2 flex gap-2">
          <Button type="submit" kind="main">
            Keep it
          </Button>
          <Button kind="quiet" onClick={onLeave}>
            Leave it
          </Button>
        </div>
      </div>
    </form>
  )
}

function OnItsWay({ row: { key, item, refused } }: { row: OutboxRow }) {
  const sent = useOutbox(({ progress }) => (item.kind === 'photo' ? progress[item.ref] : undefined))
  const percent = Math.round((sent ?? 0) * 100)
  return (
    <li className="w-36">
      <div className="flex aspect-[4/3] flex-col justify-end border-2 border-dotted border-edge bg-well p-2 text-sm">
        {refused !== null ? (
          <b>Not taken</b>
        ) : (
          <>
            <span>{sent !== undefined ? `Sending, ${percent} %` : 'Kept here, waits for the server'}</span>
            <progress aria-label="Sent" className="mt-1 h-2 w-full accent-plum" max={100} value={percent} />
          </>
        )}
      </div>
      {refused !== null && (
        <>
          <p role="alert" className="mt-1 text-sm">
            {refused}
          </p>
          <button type="button" className="min-h-11 underline" onClick={() => putRowAway(key)}>
            Put away
          </button>
        </>
      )}
    </li>
  )
}

/** One photo, large; that of a label is shown on request, which is logged. */
function OnePhoto({ photo, onClose }: { photo: Photo; onClose: () => void }) {
  const visit = useVisit((state) => state.id)
  const mayWrite = useMayWrite()
  const [shown, setShown] = useState<Blob | null>(null)
  const [problem, setProblem] = useState<string | null>(null)
  const [caption, setCaption] = useState(photo.caption ?? '')
  const url = useObjectUrl(shown)
  const inputId = useId()
  const show = async (why: RevealReason) => {
    try {
      setShown(
        await withPassword(() =>
          fetchFile('POST /visits/:id/photos/:ref/show', { params: { id: visit!, ref: photo.ref }, body: { why } })
        )
      )
      setTimeout(() => setShown(null), SHOWN_MS)
    } catch (error) {
      setProblem(failureTitle(error, 'It cannot be shown just now.'))
    }
  }
  const source = photo.label ? url : `/api/visits/${visit}/photos/${photo.ref}`
  return (
    <Sheet
      open
      onClose={onClose}
      title={photo.label ? 'Photo of the label' : (photo.caption ?? 'Photo')}
      description={`${photo.by.name}, ${format(new Date(photo.at), 'd MMMM yyyy, HH:mm')}`}
      wide
    >
      {source ? (
        <img
          src={source}
          alt={photo.caption ?? 'The photo'}
          className="max-h-[60dvh] w-full object-contain"
          data-secret={photo.label || undefined}
        />
      ) : (
        <div role="group" aria-label="Why do you look at it?">
          <p>It shows secrets. Why do you look at it? The logbook notes it.</p>
          <p className="mt-2 flex flex-wrap gap-2">
            {revealReasons.map((why) => (
              <button key={why} type="button" className="chip" onClick={() => void show(why)}>
                {why}
              </button>
            ))}
          </p>
        </div>
      )}
      <Problem message={problem} className="mt-2" />
      {mayWrite && (
        <form
          className="mt-3 flex flex-wrap items-end gap-2"
          onSubmit={(event) => {
            event.preventDefault()
            write('photo.captioned', { ref: photo.ref, caption: caption.trim() || null })
            onClose()
          }}
        >
          <div className="grow basis-56">
            <label className="label" htmlFor={inputId}>
              What does it show?
            </label>
            <Input
              id={inputId}
              className="mt-1"
              maxLength={200}
              autoComplete="off"
              value={caption}
              onChange={(event) => setCaption(event.target.value)}
            />
          </div>
          <Button type="submit" disabled={(photo.caption ?? '') === caption.trim()}>
            Write it down
          </Button>
          <Button
            kind="quiet"
            onClick={() => {
              write('photo.removed', { ref: photo.ref })
              onClose()
            }}
          >
            Take it out
          </Button>
        </form>
      )}
    </Sheet>
  )
}
