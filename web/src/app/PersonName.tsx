import { useSession } from './session'

/** How the button of the person's menu looks, before and after the menu is there. */
export const menuButton = 'inline-flex min-h-11 items-center gap-2 px-2 text-onband'

/** Who is here: the name, or where there is no room for it what it begins with. */
export function PersonName() {
  const name = useSession((state) => state.me?.name)
  return (
    <>
      <span className="hidden max-w-40 truncate sm:inline">{name}</span>
      <span className="sm:hidden" aria-label={name} role="img">
        {name
          ?.split(' ')
          .map((part) => part[0])
          .join('')}
      </span>
      <span aria-hidden>▾</span>
    </>
  )
}
