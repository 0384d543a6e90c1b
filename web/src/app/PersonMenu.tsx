import { lazy, Suspense, useState } from 'react'
import { menuButton, PersonName } from './PersonName'

const load = () => import('./OpenPersonMenu')
// What it opens with is a tenth of the program's first load: it is fetched when somebody is about to press.
const OpenPersonMenu = lazy(async () => ({ default: (await load()).OpenPersonMenu }))

/** Light, one's password, and logging out here or everywhere. */
export function PersonMenu() {
  const [wanted, setWanted] = useState(false)
  // Without a connection, and not on the device yet, there is nothing to open: a later press tries again.
  const prepare = () => load().catch(() => null)
  const open = async () => {
    if (await prepare()) setWanted(true)
  }
  const button = (
    <button
      type="button"
      className={menuButton}
      aria-haspopup="menu"
      aria-expanded={false}
      onPointerEnter={() => void prepare()}
      onFocus={() => void prepare()}
      onClick={() => void open()}
    >
      <PersonName />
    </button>
  )
  return wanted ? (
    <Suspense fallback={button}>
      <OpenPersonMenu />
    </Suspense>
  ) : (
    button
  )
}
