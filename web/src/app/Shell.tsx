import { lazy, Suspense, useEffect } from 'react'
import { NavLink, Outlet, useLocation, Navigate } from 'react-router'
import { ApiProblem } from './api'
import { callUp, useCalledUp } from './called-up'
import { useClock } from './clock'
import { useKeysEverywhere } from './keys'
import { useOutbox } from '../outbox/outbox'
import { useNewerProgram } from './newer-program'
import { usePasswordAgain } from './password-again'
import { useSession } from './session'
import { PersonMenu } from './PersonMenu'
import { Button } from '../ui/Button'
import { FailedWork } from '../workers/FailedWork'
import { Heading, Page } from '../ui/Page'

const LOOK_AGAIN_MS = 2_000
/** The program is kept on the device once what was asked for is there: both would share the line otherwise. */
const KEEP_AFTER_MS = 4_000

// They know a visit's store; who never calls them up does not load them.
const AnythingSheet = lazy(async () => ({ default: (await import('../commands/CommandSheet')).AnythingSheet }))
const ChoosePassword = lazy(async () => ({ default: (await import('./ChoosePassword')).ChoosePassword }))
const OwnPasswordSheet = lazy(async () => ({ default: (await import('./ChoosePassword')).OwnPasswordSheet }))
const OutboxBar = lazy(async () => ({ default: (await import('../outbox/OutboxBar')).OutboxBar }))
const PasswordAgain = lazy(async () => ({ default: (await import('./PasswordAgain')).PasswordAgain }))
const KeysSheet = lazy(async () => ({ default: (await import('../commands/KeysSheet')).KeysSheet }))

/** What stands around every view but the log-in: who is here, and the ways to the views. A visit brings its own head. */
export function Shell() {
  const { me, unasked, look } = useSession()
  const location = useLocation()
  useEffect(() => {
    if (me !== undefined && !unasked) return
    let again: ReturnType<typeof setTimeout> | undefined
    let left = false
    const tryLook = () =>
      look().catch((error: unknown) => {
        if (!left && error instanceof ApiProblem && error.passing)
          again = setTimeout(() => void tryLook(), LOOK_AGAIN_MS)
      })
    void tryLook()
    return () => {
      left = true
      clearTimeout(again)
    }
  }, [me, unasked, look])
  if (me === undefined)
    return (
      <p className="p-6 text-soft" role="status">
        Looking who is here …
      </p>
    )
  if (me === null)
    return <Navigate to={`/login?to=${encodeURIComponent(location.pathname + location.search)}`} replace />
  if (me.mustChoose)
    return (
      <Page width="narrow">
        <Heading>Welcome, {me.name}</Heading>
        <p className="mt-1">The password you came in with was given to you. Choose one that only you know.</p>
        <div className="paper mt-4 p-4">
          <Suspense fallback={<p role="status">Loading …</p>}>
            <ChoosePassword onDone={() => void look()} />
          </Suspense>
        </div>
      </Page>
    )
  const ownHead = /^\/visit\/(?!new)/.test(location.pathname)
  return (
    <>
      {!ownHead && <Head />}
      {!ownHead && <NotOnTheServer />}
      <NewerProgram />
      <FailedWork />
      <Outlet />
      <CalledUpAnywhere inVisit={ownHead} />
    </>
  )
}

/** Most of the time there is nothing to tell, and nothing is loaded for it. */
function NotOnTheServer() {
  const some = useOutbox((state) => state.rows.length > 0)
  const wrong = useClock((state) => state.aheadMs !== null)
  return some || wrong ? (
    <Suspense>
      <OutboxBar />
    </Suspense>
  ) : null
}

/** Tells of a newer version of the program, and takes it when asked to. */
function NewerProgram() {
  const load = useNewerProgram((state) => state.load)
  useEffect(() => {
    const timer = setTimeout(
      () => void import('./keep-program').then(({ keepProgram }) => keepProgram()),
      KEEP_AFTER_MS
    )
    return () => clearTimeout(timer)
  }, [])
  return (
    load && (
      <p role="status" className="flex flex-wrap items-center gap-3 border-b-2 border-ink bg-plumwash px-4 py-1">
        <span className="grow">A newer Pasado is on this device. Finish what is half typed, then load it.</span>
        <Button onClick={load}>Load it</Button>
      </p>
    )
  )
}

/** What can be called up over every view. */
function CalledUpAnywhere({ inVisit }: { inVisit: boolean }) {
  useKeysEverywhere()
  const what = useCalledUp((state) => state.what)
  const again = usePasswordAgain((state) => state.asking !== null)
  return (
    <Suspense>
      {again && <PasswordAgain />}
      {what === 'anything' && <AnythingSheet onClose={() => callUp(null)} />}
      {what === 'password' && <OwnPasswordSheet onClose={() => callUp(null)} />}
      {what === 'keys' && <KeysSheet inVisit={inVisit} onClose={() => callUp(null)} />}
    </Suspense>
  )
}

function Head() {
  const place =
    'min-h-11 inline-flex items-center px-3 text-onband aria-[current=page]:font-bold aria-[current=page]:underline underline-offset-4 decoration-2'
  return (
    <header className="on-band flex items-center gap-1 bg-band px-4 text-onband">
      <span className="mr-3 text-lg font-bold">Pasado</span>
      <nav aria-label="Views" className="flex grow overflow-x-auto">
        <NavLink to="/" end className={place}>
          Day
        </NavLink>
        <NavLink to="/homes" className={place}>
          Homes
        </NavLink>
        <NavLink to="/catalogue" className={place}>
          Catalogue
        </NavLink>
        <NavLink to="/standard" className={place}>
          Standard
        </NavLink>
        <NavLink to="/bench" className={place}>
          Bench
        </NavLink>
        <NavLink to="/practice" className={place}>
          Practice
        </NavLink>
      </nav>
      <PersonMenu />
    </header>
  )
}
