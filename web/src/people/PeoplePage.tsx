import { format } from 'date-fns'
import { useState } from 'react'
import { Link } from 'react-router'
import { ask, failureWords } from '../app/api'
import { useSession, type Me } from '../app/session'
import { Sheet } from '../ui/Sheet'
import { AddPerson } from './AddPerson'
import { FirstPassword } from './FirstPassword'
import { roleWords, type Given, type ListedPerson } from './person'
import { Button } from '../ui/Button'
import { Problem } from '../ui/Problem'
import { Waiting } from '../ui/Waiting'
import { useRead } from '../app/read'
import { useTitle } from '../app/use-title'
import { Heading, Page } from '../ui/Page'
import { List } from '../ui/List'
import { Field, Input, Select } from '../ui/Field'

/** Whether a person works here, and where from they are logged in. */
function standWords({ leftAt, mustChoose, sessions }: ListedPerson): string {
  if (leftAt) return `left ${format(new Date(leftAt), 'd MMM yyyy')}`
  if (mustChoose) return 'has still to choose a password'
  return sessions === 0 ? 'not logged in' : `open in ${sessions} ${sessions === 1 ? 'browser' : 'browsers'}`
}

/** People: who works here, as what; passwords to begin with; who has left. */
export function PeoplePage() {
  const me = useSession((state) => state.me)
  const [refused, setProblem] = useState<string | null>(null)
  const [adding, setAdding] = useState(false)
  const [changing, setChanging] = useState<ListedPerson | null>(null)
  const [given, setGiven] = useState<Given | null>(null)
  const lead = me?.role === 'lead'
  const read = useRead('GET /people', {}, { when: lead, otherwise: 'They could not be loaded; load the page again.' })
  const people = read.value?.people
  const problem = refused ?? read.problem
  useTitle('People')
  if (!lead)
    return (
      <main className="p-6">
        <p>
          Only a lead sees who works here.{' '}
          <Link className="underline" to="/">
            Back to your day
          </Link>
        </p>
      </main>
    )
  /** What a change came to; null where it was refused, which is told. */
  const changed = async <T,>(sending: Promise<T>): Promise<{ answer: T } | null> => {
    try {
      const answer = await sending
      setProblem(null)
      await read.again()
      return { answer }
    } catch (error) {
      setProblem(failureWords(error, 'It could not be saved; try again.'))
      return null
    }
  }
  const renew = async ({ id, name, login }: ListedPerson) => {
    const renewed = await changed(ask('POST /people/:id/password', { params: { id } }))
    setChanging(null)
    if (renewed) setGiven({ name, login, password: renewed.answer.password })
  }
  return (
    <Page width="list">
      <div className="flex flex-wrap items-end justify-between gap-3">
        <Heading>People</Heading>
        <Button kind="main" onClick={() => setAdding(true)}>
          Add a person
        </Button>
      </div>
      <Problem message={!changing && problem} className="mt-3" />
      {!people && !problem && <Waiting className="mt-3" />}
      <List aria-label="Everybody" className="paper mt-4">
        {people?.map((person) => (
          <li
            key={person.id}
            className="grid items-center gap-x-4 gap-y-1 px-4 py-2 sm:grid-cols-[minmax(0,1.2fr)_8rem_minmax(0,1fr)_auto]"
          >
            <span>
              <b className="text-lg">{person.name}</b> <span className="exact text-soft">{person.login}</span>
            </span>
            <span>{roleWords[person.role]}</span>
            <span className="fine">
              {standWords(person)}
              {person.openVisits > 0 && (
                <span className={person.leftAt ? 'block font-bold' : 'block'}>
                  {person.openVisits} open {person.openVisits === 1 ? 'visit' : 'visits'}
                  {person.leftAt ? ': hand them on, from Everybody’s day' : ''}
                </span>
              )}
            </span>
            <Button
              aria-label={`Change ${person.name}`}
              onClick={() => {
                setProblem(null)
                setChanging(person)
              }}
            >
              Change
            </Button>
          </li>
        ))}
      </List>
      <p className="fine mt-3">Who has left logs in no more; their name stays in every logbook and under every seal.</p>
      <AddPerson
        open={adding}
        onClose={() => setAdding(false)}
        onAdded={(added) => {
          setAdding(false)
          setGiven(added)
          void read.again()
        }}
      />
      {changing && (
        <Sheet
          open
          onClose={() => {
            setChanging(null)
            setProblem(null)
          }}
          title={changing.name}
        >
          <ChangePerson
            person={changing}
            self={changing.id === me.id}
            problem={problem}
            onChange={async (body) => {
              if (await changed(ask('POST /people/:id', { params: { id: changing.id }, body }))) setChanging(null)
            }}
            onRenew={() => void renew(changing)}
          />
        </Sheet>
      )}
      <FirstPassword given={given} onClose={() => setGiven(null)} />
    </Page>
  )
}

function ChangePerson({
  person,
  self,
  problem,
  onChange,
  onRenew
}: {
  person: ListedPerson
  self: boolean
  problem: string | null
  onChange: (body: { name: string; role: Me['role']; left: boolean }) => Promise<void>
  onRenew: () => void
}) {
  const [name, setName] = useState(person.name)
  const [role, setRole] = useState(person.role)
  const left = person.leftAt !== null
  return (
    <div className="flex flex-col gap-4">
      <form
        className="flex flex-col gap-4"
        onSubmit={(event) => {
          event.preventDefault()
          void onChange({ name, role, left })
        }}
      >
        <Field label="Name">
          <Input value={name} autoComplete="off" onChange={(event) => setName(event.target.value)} />
        </Field>
        <Field label="Role">
          <Select value={role} onChange={(event) => setRole(event.target.value as Me['role'])}>
            {(Object.keys(roleWords) as Me['role'][]).map((roleWord) => (
              <option key={roleWord} value={roleWord}>
                {roleWords[roleWord]}
              </option>
            ))}
          </Select>
        </Field>
        <Problem message={problem} />
        <p>
          <Button type="submit" kind="main">
            Keep this
          </Button>
        </p>
      </form>
      <div className="flex flex-wrap gap-2 border-t border-rule pt-4">
        {!self && !left && <Button onClick={onRenew}>Give a new password</Button>}
        {left ? (
          <Button onClick={() => void onChange({ name: person.name, role: person.role, left: false })}>
            Works here again
          </Button>
        ) : (
          <Button onClick={() => void onChange({ name: person.name, role: person.role, left: true })}>Has left</Button>
        )}
      </div>
      {!left && (
        <p className="fine">
          A new password and leaving both end the log-ins of {person.name} everywhere, and what a lost telephone has
          taken along is put away as soon as it reaches the server.
        </p>
      )}
    </div>
  )
}
