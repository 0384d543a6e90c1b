import { Tick } from '../ui/Tick'
import { Trash2 } from 'lucide-react'
import type { OwnRule } from '@pasado/core/policy/own-rule-schema'
import type { Stage } from '@pasado/core/record/stages'
import { Button } from '../ui/Button'
import { List } from '../ui/List'
import { Field, Input, Select } from '../ui/Field'

/** Rules of the house at a stage: a question that a person answers, with a photo or without. */
export function OwnRules({
  stage,
  own,
  editing,
  onSet
}: {
  stage: Stage
  own: readonly OwnRule[]
  editing: boolean
  onSet: (own: OwnRule[]) => void
}) {
  const here = own.filter((candidate) => candidate.stage === stage)
  if (here.length === 0 && !editing) return null
  const change = (id: string, part: Partial<OwnRule>) =>
    onSet(own.map((rule) => (rule.id === id ? { ...rule, ...part } : rule)))
  const add = () => {
    const taken = new Set(own.map(({ id }) => id))
    let number = own.length + 1
    while (taken.has(`own-${stage}-${number}`)) number++
    onSet([...own, { id: `own-${stage}-${number}`, stage, level: 'should', asks: '', photo: false }])
  }
  return (
    <section aria-label="Rules of the house" className="mt-4">
      <h3>Rules of the house</h3>
      <List framed>
        {here.map((rule) => (
          <li key={rule.id} className="grid items-end gap-3 py-3 md:grid-cols-[minmax(0,1fr)_9.5rem_auto_auto]">
            {editing ? (
              <>
                <Field label="Question">
                  <Input
                    maxLength={200}
                    value={rule.asks}
                    placeholder="Is …?"
                    onChange={(event) => change(rule.id, { asks: event.target.value })}
                  />
                </Field>
                <Field label="Level">
                  <Select
                    value={rule.level}
                    onChange={(event) => change(rule.id, { level: event.target.value as OwnRule['level'] })}
                  >
                    <option value="must">must</option>
                    <option value="should">should</option>
                    <option value="note">note</option>
                  </Select>
                </Field>
                <Tick checked={rule.photo} onTick={(checked) => change(rule.id, { photo: checked })}>
                  with a photo
                </Tick>
                <Button
                  kind="quiet"
                  className="justify-self-start px-2"
                  aria-label={`Take out: ${rule.asks || rule.id}`}
                  onClick={() => onSet(own.filter(({ id }) => id !== rule.id))}
                >
                  <Trash2 aria-hidden size={18} />
                </Button>
              </>
            ) : (
              <>
                <p>
                  {rule.asks}
                  {rule.photo && <span className="fine"> with a photo</span>}
                </p>
                <b className="md:text-right">{rule.level}</b>
              </>
            )}
          </li>
        ))}
      </List>
      {editing && (
        <Button className="mt-2" onClick={add}>
          Add a rule of the house
        </Button>
      )}
    </section>
  )
}
