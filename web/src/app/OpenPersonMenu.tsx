import { Keyboard, KeyRound, LogOut, SunMoon, Users } from 'lucide-react'
import { DropdownMenu } from 'radix-ui'
import { lazy, Suspense, useState } from 'react'
import { useNavigate } from 'react-router'
import { useOutbox } from '../outbox/outbox'
import { callUp } from './called-up'
import { useLight } from './light'
import { menuButton, PersonName } from './PersonName'
import { useSession } from './session'

const LogOutSheet = lazy(async () => ({ default: (await import('../outbox/LogOutSheet')).LogOutSheet }))

/** Light, and logging out here or everywhere. */
export function OpenPersonMenu() {
  const { me, logOut } = useSession()
  const turn = useLight((state) => state.turn)
  const navigate = useNavigate()
  const unsent = useOutbox((state) => state.rows).filter((row) => row.owner?.id === me?.id)
  const [asking, setAsking] = useState<'here' | 'everywhere' | null>(null)
  const leave = async (everywhere: boolean) => {
    await logOut(everywhere)
    await navigate('/login')
  }
  const ask = (everywhere: boolean) => {
    if (unsent.length > 0) setAsking(everywhere ? 'everywhere' : 'here')
    else void leave(everywhere)
  }
  const item = 'flex min-h-11 items-center gap-3 px-4 outline-none data-[highlighted]:bg-plumwash cursor-pointer'
  return (
    <>
      {asking && (
        <Suspense>
          <LogOutSheet
            unsent={unsent}
            onStay={() => setAsking(null)}
            onLeave={() => void leave(asking === 'everywhere')}
          />
        </Suspense>
      )}
      <DropdownMenu.Root defaultOpen>
        <DropdownMenu.Trigger className={menuButton}>
          <PersonName />
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content align="end" className="z-50 min-w-60 border-2 border-ink bg-sheet py-1 text-ink">
            <DropdownMenu.Label className="fine px-4 py-2">
              {me?.name}, {me?.role}
            </DropdownMenu.Label>
            <DropdownMenu.Item className={item} onSelect={() => callUp('anything')}>
              <Keyboard aria-hidden size={18} />
              Do anything{' '}
              <span aria-hidden className="key ml-auto">
                Ctrl K
              </span>
            </DropdownMenu.Item>
            <DropdownMenu.Item className={item} onSelect={turn}>
              <SunMoon aria-hidden size={18} />
              Daylight or Cupboard
            </DropdownMenu.Item>
            {me?.role === 'lead' && (
              <DropdownMenu.Item className={item} onSelect={() => void navigate('/people')}>
                <Users aria-hidden size={18} />
                People
              </DropdownMenu.Item>
            )}
            <DropdownMenu.Item className={item} onSelect={() => callUp('password')}>
              <KeyRound aria-hidden size={18} />
              Change my password
            </DropdownMenu.Item>
            <DropdownMenu.Item className={item} onSelect={() => ask(false)}>
              <LogOut aria-hidden size={18} />
              Log out
            </DropdownMenu.Item>
            <DropdownMenu.Item className={item} onSelect={() => ask(true)}>
              <LogOut aria-hidden size={18} />
              Log out everywhere
            </DropdownMenu.Item>
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
    </>
  )
}
