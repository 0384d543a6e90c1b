import { useState } from 'react'
import { choiceAnswers, choiceNames, choices } from '@pasado/core/record/answers'
import { isPackFresh } from '@pasado/core/rules/stages/handover'
import { download, failureTitle } from '../../../app/api'
import { Chips } from '../../../ui/Chips'
import { AskedRules } from '../../frame/AskedRules'
import { Cautions } from '../../frame/Cautions'
import { Custody } from './Custody'
import { ChoiceFact } from '../../fields/FactField'
import { useFolded, useMayWrite } from '../../session/facts'
import { PackLinks } from './PackLinks'
import { placeKey } from '../../session/place'
import { useVisit } from '../../session/visit-state'
import { write } from '../../session/write'
import { Button } from '../../../ui/Button'
import { Problem } from '../../../ui/Problem'

/** Hand over: what the customer is asked, told and given. */
export function HandOver() {
  const given = useVisit((state) => state.record.choices)
  const mayWrite = useMayWrite()
  return (
    <div className="p-4 lg:p-5">
      <h2 className="text-xl">Hand over</h2>
      <p className="text-soft">Ask, and record what the customer says.</p>
      <ul className="mt-3 grid gap-x-8 border-t border-rule xl:grid-cols-2">
        {choiceNames.map((choice) => (
          <li
            key={choice}
            data-place={placeKey({ kind: 'choice', id: choice, field: 'answer' })}
            className="flex flex-wrap items-center gap-x-3 gap-y-2 border-b border-rule py-2"
          >
            <p className="label w-36">{choices[choice]}</p>
            <Chips
              label={choices[choice]}
              value={given[choice]?.answer}
              disabled={!mayWrite}
              options={choiceAnswers[choice].map((value) => ({ value, label: value }))}
              onChoose={(answer) => write('choice.answered', { choice, answer })}
            />
          </li>
        ))}
      </ul>
      <Custody />
      <Cautions />
      <div className="mt-4">
        <AskedRules stage="handover" />
      </div>
      <Pack />
    </div>
  )
}

const ways = ['printed', 'by mail', 'on their device'] as const

const madeWords = (fresh: boolean) =>
  fresh ? 'Made from the record as it is now.' : 'The record changed since it was made: make it again.'

function Pack() {
  const folded = useFolded()
  const { record } = folded
  const id = useVisit((state) => state.id)
  const pending = useVisit((state) => state.pending.length)
  const mayWrite = useMayWrite()
  const [problem, setProblem] = useState<string | null>(null)
  const [busy, setBusy] = useState(false)
  const made = record.pack.madeDigest !== null
  const fresh = isPackFresh(folded)
  const make = async () => {
    setBusy(true)
    setProblem(null)
    try {
      await download('POST /visits/:id/pack', { params: { id: id! }, body: {} })
    } catch (error) {
      setProblem(failureTitle(error, 'The pack could not be made; try again.'))
    } finally {
      setBusy(false)
    }
  }
  return (
    <section
      aria-label="The customer’s pack"
      className="mt-5"
      data-place={placeKey({ kind: 'pack', id: 'pack', field: 'given' })}
    >
      <h3 className="text-lg">The customer’s pack</h3>
      <div className="mt-2">
        <ChoiceFact
          kind="brief"
          id="brief"
          field="language"
          label="In which language"
          options={[
            { value: 'en', label: 'English' },
            { value: 'es', label: 'español' }
          ]}
        />
      </div>
      <p className="mt-1">
        {made
          ? madeWords(fresh)
          : 'Names and passphrases with codes to join, where each unit stands, what its lamp should look like, who to call.'}
      </p>
      <div className="mt-2 flex flex-wrap items-center gap-3">
        <Button kind="main" disabled={busy || !mayWrite || pending > 0} onClick={() => void make()}>
          {busy ? 'Making …' : `Make the pack${made ? ' again' : ''}`}
        </Button>
        {record.pack.madeDigest && fresh && (
          <Chips
            label="How was it given"
            value={
              record.pack.givenDigest === record.pack.madeDigest
                ? ((record.pack.how as 'printed' | null) ?? undefined)
                : undefined
            }
            disabled={!mayWrite}
            options={ways.map((value) => ({ value, label: `given ${value}` }))}
            onChoose={(how) => write('pack.given', { how })}
          />
        )}
      </div>
      <Problem message={problem} className="mt-2" />
      <PackLinks mayMake={mayWrite && pending === 0} />
    </section>
  )
}
