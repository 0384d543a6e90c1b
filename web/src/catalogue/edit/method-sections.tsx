import { methodKinds, methodNeeds } from '@pasado/core/catalogue/model'
import { useEditing, valueAt } from './draft'
import { NumberAt, Rows, SelectAt, SeveralAt, TextAt } from './fields'
import { useStates, optionsOf } from './options'

/** Ways to set it up, step by step. */
export function MethodsSection() {
  const states = useStates()
  const { draft, set } = useEditing()
  return (
    <Rows
      path={['methods']}
      label="Method"
      fresh={(count) => ({ id: `method-${count + 1}`, name: '', kind: 'app', needs: [], steps: [{ do: '' }] })}
    >
      {(at) => (
        <div className="flex flex-col gap-2">
          <div className="grid gap-2 sm:grid-cols-3">
            <TextAt path={[...at, 'name']} label="Name" />
            <TextAt path={[...at, 'id']} label="Id" exact />
            <SelectAt path={[...at, 'kind']} label="Kind" options={optionsOf(methodKinds)} />
          </div>
          <SeveralAt
            path={[...at, 'needs']}
            label="Needs"
            options={Object.keys(methodNeeds).map((value) => ({ value, label: value.replaceAll('-', ' ') }))}
          />
          <Rows path={[...at, 'steps']} label="Step" fresh={() => ({ do: '' })}>
            {(step) => {
              const waits = valueAt(draft, [...step, 'wait']) !== undefined
              return (
                <div className="flex flex-col gap-2">
                  <div className="grid gap-2 sm:grid-cols-[2fr_1fr]">
                    <TextAt path={[...step, 'do']} label="Do" />
                    <SelectAt
                      path={[...step, 'expect']}
                      label="Then the lamp shows"
                      none="nothing in particular"
                      options={states}
                    />
                  </div>
                  <div className="grid gap-2 sm:grid-cols-[2fr_1fr]">
                    <TextAt path={[...step, 'ifNot']} label="If it does not" empty="away" />
                    <label className="flex min-h-11 items-center gap-2 self-end">
                      <input
                        type="checkbox"
                        className="size-5 accent-plum"
                        checked={waits}
                        onChange={(event) =>
                          set(
                            [...step, 'wait'],
                            event.target.checked ? { leastMin: 1, usualMin: 2, mostMin: 5 } : undefined
                          )
                        }
                      />
                      a wait
                    </label>
                  </div>
                  {waits && (
                    <div className="grid grid-cols-3 gap-2">
                      <NumberAt path={[...step, 'wait', 'leastMin']} label="Least" unit="min" empty="keep" />
                      <NumberAt path={[...step, 'wait', 'usualMin']} label="Usually" unit="min" empty="keep" />
                      <NumberAt path={[...step, 'wait', 'mostMin']} label="At most" unit="min" empty="keep" />
                    </div>
                  )}
                </div>
              )
            }}
          </Rows>
        </div>
      )}
    </Rows>
  )
}

/** Prompts that the customer answers, and how updates come. */
export function PromptsSection() {
  return (
    <div className="flex flex-col gap-4">
      <Rows
        path={['prompts']}
        label="Prompt"
        fresh={(count) => ({ id: `prompt-${count + 1}`, text: '' })}
        columns="minmax(0,1fr) minmax(0,3fr)"
      >
        {(at) => (
          <>
            <TextAt path={[...at, 'id']} label="Id" exact quiet />
            <TextAt path={[...at, 'text']} label="What it asks" quiet />
          </>
        )}
      </Rows>
    </div>
  )
}
