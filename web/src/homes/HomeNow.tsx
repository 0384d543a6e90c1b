import { format } from 'date-fns'
import { Link } from 'react-router'
import type { HomeNow as Now } from '@pasado/core/documents/home-now'
import { lookWords } from '@pasado/core/catalogue/look'
import { Lens } from '../ui/Lens'
import { Mark } from '../ui/Mark'
import { List } from '../ui/List'

const useWords: Record<string, string> = { main: 'home', guest: 'guests', office: 'office', equipment: 'equipment' }

/** What stands at a home now, for whoever is asked on the telephone: units with their lamps, names, what was left with a reason. */
export function HomeNow({ now }: { now: Now }) {
  return (
    <section aria-label="What stands there now" className="mt-5">
      <h2 className="text-base text-soft">
        What stands there now, by the visit sealed on{' '}
        <Link className="underline" to={`/visit/${now.visit}/signoff`}>
          {format(new Date(now.sealedAt), 'd MMM yyyy')}
        </Link>
      </h2>
      <div className="mt-1 grid grid-cols-[minmax(0,1fr)] gap-4 lg:grid-cols-[minmax(0,1.6fr)_minmax(0,1fr)]">
        <List className="paper" aria-label="Units">
          {now.units.map((unit) => (
            <li key={unit.id} className="grid gap-x-4 px-4 py-2 sm:grid-cols-[minmax(0,1fr)_minmax(0,1.1fr)]">
              <div className="min-w-0">
                <b>{unit.name}</b> <span className="text-soft">{unit.place}</span>
                <span className="fine block">
                  {unit.model ? (
                    <Link className="underline" to={`/catalogue/${unit.model}`}>
                      {unit.modelName ?? unit.model}
                    </Link>
                  ) : (
                    'no model'
                  )}
                  {unit.role ? `, ${unit.role}` : ''} · <span className="exact">{unit.firmware ?? 'no version'}</span>
                </span>
              </div>
              <div className="min-w-0">
                {unit.lamps.map((look) => (
                  <span key={look.lamp} className="mr-3 inline-flex items-center gap-2">
                    <Lens colour={look.colour} pattern={look.pattern} size={22} />
                    <span className="text-sm">
                      {unit.lamps.length > 1 ? `${look.lamp} ` : ''}
                      {lookWords(look)}
                    </span>
                  </span>
                ))}
                <span className="fine block">{unit.means ?? ''}</span>
                <span className="exact block text-sm [overflow-wrap:anywhere]">
                  {[unit.serial, unit.mac].filter(Boolean).join(' · ')}
                </span>
              </div>
            </li>
          ))}
        </List>
        <div className="flex min-w-0 flex-col gap-4">
          <div className="paper p-4">
            <h3>Names</h3>
            <ul>
              {now.networks.map(({ id, ssid, use, bands }) => (
                <li key={id} className="mt-1">
                  <b className="exact">{ssid}</b>{' '}
                  <span className="fine">
                    {use ? `for ${useWords[use] ?? use}` : ''}
                    {bands.length ? `, ${bands.join(' and ')} GHz` : ''}
                  </span>
                </li>
              ))}
            </ul>
            <p className="fine mt-2">
              {now.secretsErased
                ? 'The passphrases were erased; nobody can look them up.'
                : 'Passphrases are in the vault: open the visit to see one, with a reason.'}
            </p>
            {now.choices.length > 0 && (
              <p className="mt-2 text-sm">
                {now.choices.map(({ choice, answer }) => `${choice}: ${answer}`).join(' · ')}
              </p>
            )}
          </div>
          {now.left.length > 0 && (
            <div className="paper p-4">
              <h3>Left with a reason</h3>
              <ul>
                {now.left.map((left) => (
                  <li key={`${left.rule} ${left.about}`} className="mt-1 grid grid-cols-[34px_minmax(0,1fr)] gap-x-3">
                    <span className="pt-1">
                      <Mark outcome={left.kind === 'waived' ? 'waived' : 'breaks'} />
                    </span>
                    <span>
                      <b>{left.about}</b>
                      <span className="block text-sm text-soft">
                        {left.kind}
                        {left.until ? ` until ${left.until}` : ''}: {left.reason}
                      </span>
                    </span>
                  </li>
                ))}
              </ul>
            </div>
          )}
        </div>
      </div>
    </section>
  )
}
