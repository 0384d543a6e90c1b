import { format } from 'date-fns'
import { useState } from 'react'
import { ask, failureWords } from '../../../app/api'
import { Chips } from '../../../ui/Chips'
import { useVisit } from '../../session/visit-state'
import { Button } from '../../../ui/Button'
import { Problem } from '../../../ui/Problem'
import { useRead } from '../../../app/read'
import { List } from '../../../ui/List'

const days = ['3', '7', '30'] as const

/** The pack as a page behind a link: made, told by voice, ended. Link and code are shown once. */
export function PackLinks({ mayMake }: { mayMake: boolean }) {
  const id = useVisit((state) => state.id)
  const erased = useVisit((state) => state.record.secretsErased)
  const { value, again } = useRead('GET /visits/:id/pack-links', { params: { id: id! } })
  const links = value?.links ?? []
  const [made, setMade] = useState<{ address: string; code: string; expiresAt: string } | null>(null)
  const [lasts, setLasts] = useState<(typeof days)[number]>('7')
  const [problem, setProblem] = useState<string | null>(null)
  const [copied, setCopied] = useState(false)
  const fail = (error: unknown) => setProblem(failureWords(error, 'It did not go through; try again.'))
  const make = async () => {
    setProblem(null)
    setCopied(false)
    try {
      const { token, code, expiresAt } = await ask('POST /visits/:id/pack-links', {
        params: { id: id! },
        body: { days: Number(lasts) }
      })
      setMade({ address: `${location.origin}/pack#${token}`, code, expiresAt })
      await again()
    } catch (error) {
      fail(error)
    }
  }
  const end = async (link: string) => {
    setProblem(null)
    try {
      await ask('DELETE /visits/:id/pack-links/:link', { params: { id: id!, link } })
      setMade(null)
      await again()
    } catch (error) {
      fail(error)
    }
  }
  if (erased) return null
  return (
    <section aria-label="The pack as a page" className="mt-4 border-t border-rule pt-3">
      <h4 className="font-bold">The pack as a page</h4>
      <p className="text-sm text-soft">
        A link for the customer that ends by itself and wants a code. Send the link, tell the code by voice.
      </p>
      {mayMake && (
        <div className="mt-2 flex flex-wrap items-center gap-3">
          <Chips
            label="It lasts"
            value={lasts}
            options={days.map((value) => ({ value, label: `${value} days` }))}
            onChoose={setLasts}
          />
          <Button onClick={() => void make()}>Make a link</Button>
        </div>
      )}
      {made && (
        <div role="status" className="mt-3 border-2 border-ink bg-well p-3">
          <p className="exact [overflow-wrap:anywhere]">{made.address}</p>
          <p className="mt-2">
            Code, to be told by voice:{' '}
            <b className="exact text-2xl tracking-widest">
              {made.code.slice(0, 3)} {made.code.slice(3)}
            </b>
          </p>
          <p className="fine mt-1">
            Both are shown this once. They end on {format(new Date(made.expiresAt), 'd MMMM, HH:mm')}.
          </p>
          <Button
            className="mt-2"
            onClick={() =>
              void navigator.clipboard?.writeText(made.address).then(
                () => setCopied(true),
                () => setCopied(false)
              )
            }
          >
            {copied ? 'Link copied' : 'Copy the link'}
          </Button>
        </div>
      )}
      {links.length > 0 && (
        <List framed className="mt-2" aria-label="Links that work">
          {links.map((link) => (
            <li key={link.id} className="flex flex-wrap items-center justify-between gap-x-4 py-1">
              <span>
                Made {format(new Date(link.madeAt), 'd MMM HH:mm')}, ends{' '}
                {format(new Date(link.expiresAt), 'd MMM HH:mm')},{' '}
                {link.openedAt ? `opened ${format(new Date(link.openedAt), 'd MMM HH:mm')}` : 'not opened yet'}
              </span>
              <Button
                kind="quiet"
                aria-label={`End the link made ${format(new Date(link.madeAt), 'd MMM HH:mm')}`}
                onClick={() => void end(link.id)}
              >
                End it
              </Button>
            </li>
          ))}
        </List>
      )}
      <Problem message={problem} className="mt-2" />
    </section>
  )
}
