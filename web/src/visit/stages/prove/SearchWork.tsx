import { modelOf } from '@pasado/core/catalogue/model'
import { useState } from 'react'
import { handOverText } from '@pasado/core/work/diagnose/hand-over'
import { observationOf, type Observation, type ObservationId } from '@pasado/core/work/diagnose/observations'
import type { House } from '@pasado/core/house/house'
import type { Catalogue } from '@pasado/core/catalogue/model'
import { aboutWords } from './complaint'
import { Causes, WhatWasSeen, wordsOf } from './SearchKnown'
import { MendThis, NextLook, WorksNow } from './SearchSteps'
import { useSearch, type SearchNow } from './use-search'
import { observeHouse } from '@pasado/core/house/observed'
import { unitName, type FaultSearch, type VisitRecord } from '@pasado/core/record/record'
import { failureTitle } from '../../../app/api'
import { Sheet } from '../../../ui/Sheet'
import { useMayWrite } from '../../session/facts'
import { useVisit } from '../../session/visit-state'
import { openHouse } from './open-house'
import { Button } from '../../../ui/Button'
import { Problem } from '../../../ui/Problem'
import { Notice } from '../../../ui/Notice'
import { Field, TextArea } from '../../../ui/Field'

/** The work of a search: the next look or mend on the left, what was seen under it, the causes on the right. */
export function SearchWork({ search }: { search: FaultSearch }) {
  const record = useVisit((state) => state.record)
  const catalogue = useVisit((state) => state.catalogue)
  const mayWrite = useMayWrite()
  const now = useSearch(search)
  const { step, odd, others, suspects } = now
  const [problem, setProblem] = useState<string | null>(null)
  const [sending, setSending] = useState(false)
  const [asked, setAsked] = useState<string | null>(null)
  const tell: SearchNow['tell'] = (observation, answer) => {
    setAsked(null)
    now.tell(observation, answer)
  }
  const proposed = step.do === 'test' ? step.test.observation : null
  const shown = asked ? observationOf(asked)! : proposed
  const fromHouse = async (observation: Observation) => {
    try {
      const answer = answerOfHouse(await openHouse(), now, record, observation)
      if ('problem' in answer) {
        setProblem(answer.problem)
        return
      }
      setProblem(null)
      tell(observation.id, answer.answer)
    } catch (error) {
      setProblem(failureTitle(error, 'The server is not in reach; try again.'))
    }
  }
  return (
    <section aria-label="The search" className="grid gap-4 lg:grid-cols-[minmax(0,1.15fr)_minmax(0,1fr)]">
      <div className="flex flex-col gap-4">
        <div className="paper p-4">
          <p className="text-soft">Looking for what is wrong{aboutWords(record, search.about)}.</p>
          {shown && (
            <NextLook
              shown={shown}
              isProposed={shown === proposed}
              onTell={(answer) => tell(shown.id, answer)}
              onHouse={record.house && shown.order !== 99 ? () => void fromHouse(shown) : undefined}
              onNotNow={asked ? () => setAsked(null) : undefined}
            />
          )}
          {!asked && step.do === 'mend' && (
            <MendThis suspect={step.suspect} now={now} onHandOver={() => setSending(true)} />
          )}
          {!asked && step.do === 'done' && <WorksNow step={step} now={now} />}
          <Problem message={problem} className="mt-2" />
        </div>
        {odd.length > 0 && (
          <Notice role="note" edge="ink">
            <b>These hardly go together:</b>
            <ul>
              {odd.map(({ observation, answer }) => (
                <li key={observation.id}>
                  {observation.asks} <b>{wordsOf(observation, answer)}</b>
                </li>
              ))}
            </ul>
            <p className="fine">Look again where you can; all are weighed as they stand.</p>
          </Notice>
        )}
        {others.length > 0 && mayWrite && (
          <details>
            <summary className="min-h-11 py-2">Look at something else first</summary>
            <ul className="flex flex-col gap-1">
              {others.map(({ observation }) => (
                <li key={observation.id}>
                  <Button kind="quiet" className="text-left" onClick={() => setAsked(observation.id)}>
                    {observation.asks} <span className="fine">about {observation.minutes} min</span>
                  </Button>
                </li>
              ))}
            </ul>
          </details>
        )}
        <WhatWasSeen now={now} onTakeBack={(id) => tell(id, null)} onAnew={setAsked} />
      </div>
      <Causes now={now} onHandOver={() => setSending(true)} />
      <Sheet
        open={sending}
        onClose={() => setSending(false)}
        title="Hand over"
        description="What was seen and ruled out, to send. It names no customer and holds no secret."
      >
        <HandOver
          text={textToSend(now, record, catalogue)}
          onSent={(to) => {
            now.end(suspects[0]!.cause.id, to)
            setSending(false)
          }}
        />
      </Sheet>
    </section>
  )
}

/** What is handed over to the provider or the maker, as text. */
function textToSend(
  { suspects, observed, offered, unitThere: unit }: SearchNow,
  record: VisitRecord,
  catalogue: Catalogue
) {
  const model = unit ? modelOf(unit, catalogue) : undefined
  return handOverText(
    suspects[0]!.cause.id,
    observed,
    {
      unit: unit ? unitName(unit) : null,
      model: model ? `${model.maker} ${model.name}` : null,
      serial: unit?.facts.serial ?? null,
      line: record.brief.facts.accessLine?.replace('-', ' ') ?? null,
      speedMbps: record.brief.facts.speedDownMbps ?? null
    },
    { offered }
  )
}

/** What the simulated house shows of an observation, or why it cannot tell. */
function answerOfHouse(
  house: House,
  { unitThere, room: roomId }: SearchNow,
  record: VisitRecord,
  observation: Observation
): { answer: string } | { problem: string } {
  const here = [...house.units.values()].find(({ definition }) => definition.serial === unitThere?.facts.serial)
  if (!here) return { problem: 'No unit of the house has this serial.' }
  const room = roomId ? record.rooms?.[roomId]?.facts.name?.toLowerCase() : undefined
  const drawn =
    house.definition.plan?.storeys.flatMap((storey) =>
      storey.rooms.map((room) => ({
        name: room.name.toLowerCase(),
        where: { storey: storey.name, x: room.x + room.widthM / 2, y: room.y + room.depthM / 2, heightM: 1 }
      }))
    ) ?? []
  const where = drawn.find(({ name }) => name === room)?.where ?? here.at ?? { storey: '', x: 0, y: 0 }
  const answer = observeHouse(house, { unit: here.definition.id, where }, observation.id as ObservationId)
  return answer === null ? { problem: 'The house cannot tell that: answer it yourself.' } : { answer }
}

function HandOver({ text, onSent }: { text: string; onSent: (to: 'provider' | 'maker' | 'left') => void }) {
  const [copied, setCopied] = useState(false)
  return (
    <div>
      <Field label="Text to send">
        <TextArea readOnly exact className="min-h-72 text-sm" value={text} />
      </Field>
      <div className="mt-3 flex flex-wrap gap-2">
        <Button
          onClick={() =>
            void navigator.clipboard.writeText(text).then(
              () => setCopied(true),
              () => undefined
            )
          }
        >
          {copied ? 'Copied' : 'Copy it'}
        </Button>
        <Button kind="main" onClick={() => onSent('provider')}>
          Given to the provider
        </Button>
        <Button onClick={() => onSent('maker')}>Given to the maker</Button>
        <Button onClick={() => onSent('left')}>Asked for help: left as it is</Button>
      </div>
    </div>
  )
}
