import { useState, type ReactNode } from 'react'
import { lampColours, lampPatterns } from '@pasado/core/catalogue/look'
import { judgeStrength } from '@pasado/core/secrets/strength'
import { Button } from './Button'
import { Chips } from './Chips'
import { HeldButton } from './HeldButton'
import { Lens } from './Lens'
import { Mark, outcomeWords } from './Mark'
import { PassphraseJudged } from './PassphraseJudged'
import { Problem } from './Problem'
import { Sheet } from './Sheet'
import { Waiting } from './Waiting'
import { useTitle } from '../app/use-title'

const outcomes = Object.keys(outcomeWords) as (keyof typeof outcomeWords)[]
const lenses = [
  ...lampColours.map((colour) => ({ colour, pattern: 'solid' as const })),
  ...lampPatterns.map((pattern) => ({ colour: pattern === 'alternate' ? 'amber/green' : 'green', pattern }))
]
const passphrase = 'demo-plover-42'

function Part({ name, says, children }: { name: string; says: string; children: ReactNode }) {
  return (
    <section aria-label={name} className="paper p-4">
      <h2 className="text-lg">{name}</h2>
      <p className="fine">{says}</p>
      <div className="mt-3 flex flex-wrap items-center gap-3">{children}</div>
    </section>
  )
}

/** Every part of the interface in each of its states: for whoever builds a screen, and for the test that looks at it in both lights. */
export function Parts() {
  const [open, setOpen] = useState(false)
  const [chosen, setChosen] = useState<'5' | '2.4' | '6'>('5')
  const [held, setHeld] = useState<number | null>(null)
  useTitle('Parts')
  return (
    <main className="mx-auto max-w-5xl p-4 lg:p-6">
      <h1 className="text-2xl">Parts</h1>
      <p className="text-soft">What screens are made of, in each of its states.</p>
      <div className="mt-4 grid items-start gap-4 md:grid-cols-2">
        <Part name="Button" says="Main: what a screen is there for, once. Quiet: what is rarely wanted.">
          {(['main', 'plain', 'quiet'] as const).map((kind) => (
            <Button key={kind} kind={kind}>
              {kind}
            </Button>
          ))}
          {(['main', 'plain', 'quiet'] as const).map((kind) => (
            <Button key={kind} kind={kind} disabled>
              {kind}, not now
            </Button>
          ))}
        </Part>
        <Part name="Problem and waiting" says="Told to whoever sees and to whoever listens.">
          <Problem says="It could not be saved; try again." />
          <Waiting />
        </Part>
        <Part name="Chips" says="One of a few, all of them in sight.">
          <Chips
            label="Band"
            value={chosen}
            options={(['2.4', '5', '6'] as const).map((value) => ({ value, words: `${value} GHz` }))}
            onChoose={setChosen}
          />
          <Chips
            label="Band, not now"
            value="5"
            options={[
              { value: '5', words: '5 GHz' },
              { value: '6', words: '6 GHz' }
            ]}
            onChoose={() => undefined}
            disabled
          />
        </Part>
        <Part name="Mark" says="How a rule came out; each outcome has an outline of its own.">
          {outcomes.map((outcome) => (
            <span key={outcome} className="flex items-center gap-2">
              <Mark outcome={outcome} /> {outcomeWords[outcome]}
            </span>
          ))}
        </Part>
        <Part name="Lens" says="A lamp as it is seen.">
          {lenses.map(({ colour, pattern }, at) => (
            <Lens key={at} colour={colour} pattern={pattern} />
          ))}
        </Part>
        <Part name="Held button" says="Counts how long it is held.">
          <HeldButton onHeld={setHeld}>Hold</HeldButton>
          <HeldButton onHeld={setHeld} disabled>
            Hold, not now
          </HeldButton>
          {held !== null && <span className="exact">{Math.round(held)} s</span>}
        </Part>
        <Part name="Sheet" says="What is done beside a screen, and put away again.">
          <Button onClick={() => setOpen(true)}>Open a sheet</Button>
          <Sheet open={open} onClose={() => setOpen(false)} title="A sheet" says="With what it is about.">
            <div className="mt-3 flex gap-3">
              <Button kind="main" onClick={() => setOpen(false)}>
                Do it
              </Button>
              <Button onClick={() => setOpen(false)}>Not now</Button>
            </div>
          </Sheet>
        </Part>
        <Part name="Passphrase, judged" says="How strong it is, and how it is said.">
          <PassphraseJudged value={passphrase} strength={judgeStrength(passphrase)} />
        </Part>
      </div>
    </main>
  )
}
