import { Command } from 'cmdk'
import { Dialog } from 'radix-ui'
import { useMemo, useRef, useState } from 'react'
import { useLocation, useNavigate } from 'react-router'
import type { ListedHome } from '@pasado/core/api/homes'
import { ask } from '../app/api'
import { callUp } from '../app/called-up'
import { useLight } from '../app/light'
import { useSession } from '../app/session'
import { useModels } from '../catalogue/models'
import type { ListedVisit } from '@pasado/core/api/day'
import { likeliest } from './match-score'
import { offersOfModels, offersOfViews, offersOfVisit, type OfferGroup } from './commands'
import { useRead, useReading } from '../app/read'
import { useLater } from '../app/use-later'

const PAUSE_MS = 200
/** Of what a docket asks for, this much is shown before anything is typed. */
const MENDS_AT_FIRST = 4

interface Found {
  /** What was searched for. */
  by: string
  homes: ListedHome[]
}

/** The homes that a search finds, a moment after the typing; none where the server cannot be reached. */
function useHomes(wanted: string): Found {
  const by = useLater(wanted, PAUSE_MS)
  const { value } = useReading(
    ['homes found', by],
    async (): Promise<Found> => ({ by, homes: (await ask('GET /homes', { query: { q: by } })).homes.slice(0, 6) }),
    { when: by.length > 1, keep: true }
  )
  return value ?? { by: '', homes: [] }
}

const noVisits: ListedVisit[] = []

/** The open visits of whoever asks. */
function useOwnVisits(): ListedVisit[] {
  return useRead('GET /day', { query: { whose: 'mine' } }).value?.visits ?? noVisits
}

/** Do anything: what can be done from here, found by a few letters of it. */
export function AnythingSheet({ onClose }: { onClose: () => void }) {
  const navigate = useNavigate()
  const { pathname } = useLocation()
  const logOut = useSession((state) => state.logOut)
  const lead = useSession((state) => state.me?.role === 'lead')
  const turn = useLight((state) => state.turn)
  const { models } = useModels()
  const [wanted, setWanted] = useState('')
  const { by, homes } = useHomes(wanted.trim())
  const own = useOwnVisits()
  const [mark, setMark] = useState({ at: '', id: '' })
  const chose = useRef(false)
  const visit = /^\/visit\/([0-9a-f-]{36})/.exec(pathname)?.[1]
  const fixed = useMemo(() => {
    const go = (path: string) => void navigate(path, { state: { asked: Date.now() } })
    const groups: OfferGroup[] = [
      ...(visit ? offersOfVisit(visit, go) : []),
      {
        name: 'My visits',
        offers: own
          .filter(({ id }) => id !== visit)
          .map(({ id, street, customer }) => ({
            id: `visit ${id}`,
            label: street,
            hint: customer,
            act: () => go(`/visit/${id}/brief`)
          }))
      },
      offersOfViews(lead, go),
      ...(models ? [offersOfModels(models, go)] : []),
      {
        name: 'Program',
        offers: [
          { id: 'light', label: 'Daylight or Cupboard', key: 't', act: turn },
          { id: 'password', label: 'Change my password', act: () => callUp('password') },
          { id: 'out', label: 'Log out', act: () => void logOut(false).then(() => navigate('/login')) }
        ]
      }
    ]
    return groups
  }, [visit, own, lead, models, navigate, turn, logOut])
  const typed = wanted.trim() !== ''
  const found: OfferGroup = {
    name: 'Homes',
    offers: homes.map(({ id, street, town, customer }) => ({
      id: `home ${id}`,
      label: `${street}, ${town}`,
      hint: customer,
      also: by,
      act: () => void navigate(`/homes/${id}`)
    }))
  }
  const shown = typed
    ? likeliest([...fixed, found], wanted)
    : fixed.flatMap((group) =>
        group.name === 'Models' || group.name === 'Stages'
          ? []
          : [group.name === 'To mend' ? { ...group, offers: group.offers.slice(0, MENDS_AT_FIRST) } : group]
      )
  // What was marked stays marked while more is found; with the next letter the first is marked again.
  const marked =
    mark.at === wanted && shown.some(({ offers }) => offers.some(({ id }) => id === mark.id))
      ? mark.id
      : (shown.find(({ offers }) => offers.length > 0)?.offers[0]?.id ?? '')
  const row =
    'flex min-h-11 cursor-pointer items-center gap-3 px-4 py-1.5 aria-selected:bg-plumwash aria-selected:outline-2 aria-selected:-outline-offset-2 aria-selected:outline-plum'
  const choose = (act: () => void) => {
    chose.current = true
    onClose()
    // Once the paper is away: what is called up next finds nothing in its place.
    setTimeout(act)
  }
  return (
    <Dialog.Root
      open
      onOpenChange={(now) => {
        if (!now) onClose()
      }}
    >
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-band/70" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed inset-x-3 top-3 z-50 mx-auto flex max-h-[min(92dvh,40rem)] max-w-2xl flex-col border-2 border-ink bg-sheet lg:top-20"
          onCloseAutoFocus={(event) => {
            if (chose.current) event.preventDefault()
          }}
        >
          <Dialog.Title className="sr-only">Do anything</Dialog.Title>
          <Command
            label="Do anything"
            loop
            shouldFilter={false}
            value={marked}
            onValueChange={(id) => setMark({ at: wanted, id })}
            className="flex min-h-0 flex-col"
          >
            <Command.Input
              className="min-h-14 w-full rounded-none border-b-2 border-ink bg-sheet px-4 text-lg outline-none"
              placeholder="What is to be done? A few letters will do"
              value={wanted}
              onValueChange={setWanted}
            />
            <Command.List label="What can be done" className="min-h-0 grow overflow-y-auto pb-2">
              <Command.Empty className="p-4">
                Nothing is called that. Try a stage, a unit, a view, a street or a customer.
              </Command.Empty>
              {shown.map(
                ({ name, offers }) =>
                  offers.length > 0 && (
                    <Command.Group
                      key={name}
                      value={name}
                      heading={<span className="fine block px-4 pb-1 pt-3">{name}</span>}
                    >
                      {offers.map((offer) => (
                        <Command.Item
                          key={offer.id}
                          value={offer.id}
                          className={row}
                          onSelect={() => choose(offer.act)}
                        >
                          <span className="min-w-0 grow truncate">
                            {offer.label}
                            {offer.hint && <span className="text-soft"> · {offer.hint}</span>}
                          </span>
                          {offer.key && (
                            <span aria-hidden className="key hidden sm:inline">
                              {offer.key}
                            </span>
                          )}
                        </Command.Item>
                      ))}
                    </Command.Group>
                  )
              )}
            </Command.List>
          </Command>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  )
}
