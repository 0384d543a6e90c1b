import { lazy, Suspense, useState } from 'react'
import { menuButton, PersonName } from './PersonName'

const load = () => import('./OpenPersonMenu')
// What it opens with is a tenth of the program's first load: it is fetched when somebody is about to press.
const OpenPersonMenu = lazy(async () => ({ default: (await load()).OpenPersonMenu }))

/** Light, one's password, and logging out here or everywhere. */
export function PersonMenu() {
  const [wanted, setWanted] = useState(false)
  const button = (
    <button
      type="button"
      className={menuButton}
      aria-haspopup="menu"
      aria-expanded={false}
      onPointerEnter={() => void load()}
      onFocus={() => void load()}
      onClick={() => setWanted(true)}
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
