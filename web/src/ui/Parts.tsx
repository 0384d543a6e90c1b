import { useState, type ReactNode } from 'react'
import { lampColours, lampPatterns } from '@pasado/core/catalogue/look'
import { judgeStrength } from '@pasado/core/secrets/strength'
import { Button } from './Button'
import { Chips } from './Chips'
import type { Read } from '../app/read'
import { Field, Input, Select, TextArea } from './Field'
import { FileButton } from './FileButton'
import { HeldButton } from './HeldButton'
import { List } from './List'
import { Loaded } from './Loaded'
import { Notice } from './Notice'
import { Lens } from './Lens'
import { Mark, outcomeWords } from './Mark'
import { PassphraseJudged } from './PassphraseJudged'
import { Problem } from './Problem'
import { Sheet } from './Sheet'
import { Tick } from './Tick'
import { Waiting } from './Waiting'
import { Page } from './Page'

const outcomes = Object.keys(outcomeWords) as (keyof typeof outcomeWords)[]
const lenses = [
  ...lampColours.map((colour) => ({ colour, pattern: 'solid' as const })),
  ...lampPatterns.map((pattern) => ({ colour: pattern === 'alternate' ? 'amber/green' : 'green', pattern }))
]
const passphrase = 'demo-plover-42'

/** Something that was read; undefined while it is on its way. */
const readAs = (value: string | undefined): Read<string> => ({
  value,
  problem: null,
  away: false,
  put: () => undefined,
  again: () => Promise.resolve()
})

function Part({ name, description, children }: { name: string; description: string; children: ReactNode }) {
  return (
    <section aria-label={name} className="paper p-4">
      <h2 className="text-lg">{name}</h2>
      <p className="fine">{description}</p>
      <div className="mt-3 flex flex-wrap items-center gap-3">{children}</div>
    </section>
  )
}

/** Every part of the interface in each of its states: for whoever builds a screen, and for the test that looks at it in both lights. */
export function Parts() {
  const [open, setOpen] = useState(false)
  const [chosen, setChosen] = useState<'5' | '2.4' | '6'>('5')
  const [held, setHeld] = useState<number | null>(null)
  const [ticked, setTicked] = useState(true)
  return (
    <Page title="Parts" width="list">
      <h1 className="text-2xl">Parts</h1>
      <p className="text-soft">What screens are made of, in each of its states.</p>
      <div className="mt-4 grid items-start gap-4 md:grid-cols-2">
        <Part name="Button" description="Main: what a screen is there for, once. Quiet: what is rarely wanted.">
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
        <Part name="Problem and waiting" description="Told to whoever sees and to whoever listens.">
          <Problem message="It could not be saved; try again." />
          <Waiting />
        </Part>
        <Part name="Field" description="A box and what is put into it; exact where every character counts.">
          <Field label="A name" className="grow basis-40">
            <Input defaultValue="Isolde Marram" />
          </Field>
          <Field label="A serial" className="grow basis-40">
            <Input exact defaultValue="QR-0O1l-7741" />
          </Field>
          <Field label="Not now" className="grow basis-40">
            <Input disabled defaultValue="sealed" />
          </Field>
          <div className="grow basis-40">
            <Field label="Wrong">
              <Input exact aria-invalid aria-describedby="parts-wrong" defaultValue="192.168.300.1" />
            </Field>
            <Problem id="parts-wrong" message="must be four numbers from 0 to 255" className="mt-1" />
          </div>
          <Field label="One of a list" className="grow basis-40">
            <Select defaultValue="wpa3">
              <option value="wpa2">WPA2</option>
              <option value="wpa3">WPA3</option>
            </Select>
          </Field>
          <Tick checked={ticked} onTick={setTicked}>
            with a photo
          </Tick>
          <Tick checked disabled onTick={setTicked}>
            not now
          </Tick>
          <Field label="Several lines" className="basis-full">
            <TextArea rows={2} defaultValue="The key hangs in the shed." />
          </Field>
          <FileButton accept=".json" onFile={() => undefined}>
            From a file
          </FileButton>
        </Part>
        <Part
          name="Notice"
          description="Said aside of the work: what offers something, what has to be seen, what is only told."
        >
          <Notice edge="plum" className="basis-full">
            Version 4 of this model is there.
          </Notice>
          <Notice edge="ink" className="basis-full">
            These hardly go together.
          </Notice>
          <Notice edge="edge" small className="basis-full">
            Install 1.4 → 2.0: one update.
          </Notice>
        </Part>
        <Part name="List" description="Lines with a rule between; framed where it stands by itself.">
          <List framed className="basis-full">
            <li className="py-2">Hall shelf</li>
            <li className="py-2">Box room</li>
          </List>
        </Part>
        <Part name="What is read" description="On its way, and there; refused, it stands in the screen’s place.">
          <Loaded read={readAs(undefined)}>{(value) => <p>{value}</p>}</Loaded>
          <Loaded read={readAs('Skerrow Bay')}>{(value) => <p>{value}</p>}</Loaded>
        </Part>
        <Part name="Chips" description="One of a few, all of them in sight.">
          <Chips
            label="Band"
            value={chosen}
            options={(['2.4', '5', '6'] as const).map((value) => ({ value, label: `${value} GHz` }))}
            onChoose={setChosen}
          />
          <Chips
            label="Band, not now"
            value="5"
            options={[
              { value: '5', label: '5 GHz' },
              { value: '6', label: '6 GHz' }
            ]}
            onChoose={() => undefined}
            disabled
          />
        </Part>
        <Part name="Mark" description="How a rule came out; each outcome has an outline of its own.">
          {outcomes.map((outcome) => (
            <span key={outcome} className="flex items-center gap-2">
              <Mark outcome={outcome} /> {outcomeWords[outcome]}
            </span>
          ))}
        </Part>
        <Part name="Lens" description="A lamp as it is seen.">
          {lenses.map(({ colour, pattern }, at) => (
            <Lens key={at} colour={colour} pattern={pattern} />
          ))}
        </Part>
        <Part name="Held button" description="Counts how long it is held.">
          <HeldButton onHeld={setHeld}>Hold</HeldButton>
          <HeldButton onHeld={setHeld} disabled>
            Hold, not now
          </HeldButton>
          {held !== null && <span className="exact">{Math.round(held)} s</span>}
        </Part>
        <Part name="Sheet" description="What is done beside a screen, and put away again.">
          <Button onClick={() => setOpen(true)}>Open a sheet</Button>
          <Sheet open={open} onClose={() => setOpen(false)} title="A sheet" description="With what it is about.">
            <div className="mt-3 flex gap-3">
              <Button kind="main" onClick={() => setOpen(false)}>
                Do it
              </Button>
              <Button onClick={() => setOpen(false)}>Not now</Button>
            </div>
          </Sheet>
        </Part>
        <Part name="Passphrase, judged" description="How strong it is, and how it is said.">
          <PassphraseJudged value={passphrase} strength={judgeStrength(passphrase)} />
        </Part>
      </div>
    </Page>
  )
}
