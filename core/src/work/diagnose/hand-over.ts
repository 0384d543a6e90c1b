import { likelyCauses, type Observed, type SearchedHome } from './belief'
import { causeOf, type CauseId } from './causes'
import { observationOf } from './observations'

/** So unlikely a cause counts as ruled out. */
const RULED_OUT = 0.01

/** A text to send to the provider or the maker: what is wrong, what was seen, what was ruled out. It names no customer and holds no secret. */
export function handOverText(
  cause: CauseId,
  observed: Observed,
  about: {
    unit: string | null
    model: string | null
    serial: string | null
    line: string | null
    speedMbps: number | null
  },
  home: SearchedHome = {}
): string {
  const suspects = likelyCauses(observed, home)
  const found = suspects.find((suspect) => suspect.cause.id === cause) ?? suspects[0]!
  const words = Object.entries(observed).flatMap(([id, answer]) => {
    const observation = observationOf(id)
    const said = observation?.answers.find((possible) => possible.id === answer)
    return observation && said
      ? [`- ${observation.asks} ${said.label.replace(/^./, (first) => first.toUpperCase())}.`]
      : []
  })
  const out = suspects
    .filter(({ probability }) => probability < RULED_OUT)
    .map((suspect) => suspect.cause.name.replace(/^./, (first) => first.toLowerCase()))
  const provider = causeOf(cause).handOver === 'provider'
  return [
    `Fault: ${found.cause.name}, likely by ${Math.round(found.probability * 100)} %.`,
    provider
      ? `Line: ${about.line ?? 'not recorded'}${about.speedMbps === null ? '' : `, ${about.speedMbps} Mbit/s paid for`}.`
      : `Unit: ${[about.model, about.serial && `serial ${about.serial}`].filter(Boolean).join(', ') || about.unit || 'not recorded'}.`,
    '',
    'What was seen and tried:',
    ...words,
    '',
    `Ruled out: ${out.length ? out.join('; ') : 'nothing yet'}.`,
    provider ? 'Please look at the line, and give us a reference.' : 'Please say how it is to be exchanged.'
  ].join('\n')
}
