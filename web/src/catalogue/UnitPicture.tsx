import type { Model, ModelState } from '@pasado/core/catalogue/model'
import { Lens } from '../ui/Lens'
import { plasticOf } from './plastic'

/** A unit's front, its lamps doing what they do in a state; lamps the state says nothing of are dark outlines. */
export function UnitFront({ model, state }: { model: Model; state: ModelState }) {
  return (
    <div className="border-2 border-ink bg-well p-4" role="group" aria-label={`Front of ${model.name}`}>
      <p className="fine text-center">
        {model.maker} {model.name}
      </p>
      <ul className="mt-3 flex flex-wrap justify-center gap-4">
        {model.lamps.map((lamp) => {
          const look = state.lamps.find((candidate) => candidate.lamp === lamp.id)
          return (
            <li key={lamp.id} className="flex flex-col items-center gap-1">
              {look ? (
                <Lens colour={look.colour} pattern={look.pattern} size={44} />
              ) : (
                <span
                  role="img"
                  aria-label="may do anything"
                  className="grid size-11 place-items-center rounded-full border-2 border-dotted border-edge text-soft"
                >
                  ?
                </span>
              )}
              <span className="fine">{lamp.name}</span>
            </li>
          )
        })}
      </ul>
      {model.lamps.length === 0 && <p className="text-center text-soft">no lamps</p>}
    </div>
  )
}

/** A unit's back: its ports in the colours of their plastic, each with its name and speed. */
export function UnitBack({ model }: { model: Model }) {
  if (model.ports.length === 0) return null
  return (
    <div className="mt-2 border-2 border-ink bg-well p-3" role="group" aria-label={`Back of ${model.name}`}>
      <ul className="flex flex-wrap justify-center gap-3">
        {model.ports.map((port) => (
          <li key={port.id} className="flex w-14 flex-col items-center gap-0.5 text-center">
            <svg
              viewBox="0 0 40 30"
              width="40"
              height="30"
              role="img"
              aria-label={`${port.kind.replace('-', ' ')} port, ${port.colour}`}
            >
              <rect
                x="2"
                y="2"
                width="36"
                height="26"
                rx={port.kind === 'coax' ? 13 : 2}
                fill={plasticOf(port.colour)}
                stroke="currentColor"
                strokeWidth="2"
              />
              {port.kind === 'coax' ? (
                <circle cx="20" cy="15" r="3.5" fill="#1D1822" />
              ) : (
                <path d="M10 23V11H15V8H25V11H30V23Z" fill="#1D1822" />
              )}
            </svg>
            <b className="text-xs">{port.name}</b>
            <span className="text-xs text-soft">
              {port.mbps
                ? `${port.mbps >= 1000 ? `${port.mbps / 1000} G` : `${port.mbps} M`}bit/s`
                : port.kind.replace('-', ' ')}
            </span>
          </li>
        ))}
      </ul>
    </div>
  )
}
