import type { RuleMonth } from '@pasado/core/api/figures'
import { useMemo } from 'react'
import { Link, useSearchParams } from 'react-router'
import { Bar, BarChart, CartesianGrid, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts'
import { ruleName } from '@pasado/core/rules/all'
import { useModels } from '../catalogue/models'
import { Chips } from '../ui/Chips'
import { Mark } from '../ui/Mark'
import { Problem } from '../ui/Problem'
import { useRead } from '../app/read'
import { Heading, Page } from '../ui/Page'

type Counts = Omit<RuleMonth, 'rule' | 'month'>

const spans = ['3', '12', '24'] as const
const parts = [
  { key: 'breaks', name: 'broken, left with a reason', fill: 'var(--ink)' },
  { key: 'waived', name: 'waived', fill: 'var(--plum)' }
] as const
const share = (part: number, whole: number) => (whole ? Math.round((1000 * part) / whole) / 10 : 0)
const tooltip = {
  contentStyle: { background: 'var(--sheet)', border: '2px solid var(--ink)', borderRadius: 3, color: 'var(--ink)' },
  cursor: { fill: 'var(--well)' }
}
const axis = { stroke: 'var(--soft)', fontSize: 13 }

/** Figures: how often each rule was left broken or was waived in sealed visits, by month and model, so that the standard can learn. */
export function FiguresPage() {
  const [search, setSearch] = useSearchParams()
  const months = spans.find((span) => span === search.get('months')) ?? '12'
  const { value, problem } = useRead(
    'GET /figures',
    { query: { months } },
    { otherwise: 'The figures could not be loaded.', keep: true }
  )
  const rules = value?.rules
  const totals = useMemo(() => {
    const found = new Map<string, Counts>()
    for (const { rule, visits, breaks, waived, unproven } of rules ?? []) {
      const known = found.get(rule) ?? { visits: 0, breaks: 0, waived: 0, unproven: 0 }
      found.set(rule, {
        visits: known.visits + visits,
        breaks: known.breaks + breaks,
        waived: known.waived + waived,
        unproven: known.unproven + unproven
      })
    }
    return [...found]
      .map(([rule, counts]) => ({ rule, ...counts, share: (counts.breaks + counts.waived) / counts.visits }))
      .filter((candidate) => candidate.breaks + candidate.waived > 0)
      .sort((a, b) => b.share - a.share || (a.rule < b.rule ? -1 : 1))
  }, [rules])
  const chosen = totals.some(({ rule }) => rule === search.get('rule'))
    ? search.get('rule')!
    : (totals[0]?.rule ?? null)
  const set = (changed: Record<string, string>) =>
    setSearch({ months, ...(chosen ? { rule: chosen } : {}), ...changed }, { replace: true })
  const sealed = Math.max(0, ...totals.map(({ visits }) => visits), ...(rules ?? []).map(({ visits }) => visits))
  return (
    <Page title="Figures" width="wide">
      <div className="flex flex-wrap items-end justify-between gap-3">
        <div>
          <Heading>How rules come out</Heading>
          <p className="text-soft">
            In sealed visits. A rule that is often waived is too strict, or not understood.{' '}
            <Link className="underline" to="/standard">
              The standard
            </Link>
          </p>
        </div>
        <Chips
          label="Over the last"
          value={months}
          options={spans.map((value) => ({ value, label: `${value} months` }))}
          onChoose={(value) => set({ months: value })}
        />
      </div>
      <Problem message={problem} className="mt-3" />
      {!rules && !problem && (
        <p className="mt-3 text-soft" role="status">
          Counting …
        </p>
      )}
      {rules && totals.length === 0 && (
        <p className="paper mt-4 p-4">
          {sealed ? 'In every visit sealed in these months, every rule held.' : 'No visit was sealed in these months.'}
        </p>
      )}
      {totals.length > 0 && (
        <div className="mt-4 grid grid-cols-[minmax(0,1fr)] gap-5 lg:grid-cols-2">
          <section aria-label="Rules" className="paper p-4">
            <p className="fine flex flex-wrap gap-x-4">
              <span className="inline-flex items-center gap-2">
                <Mark outcome="breaks" />
                left broken with a reason
              </span>
              <span className="inline-flex items-center gap-2">
                <Mark outcome="waived" />
                waived
              </span>
              <span>of the visits in which the rule applied</span>
            </p>
            <ul className="mt-2">
              {totals.slice(0, 20).map((total) => (
                <li key={total.rule}>
                  <button
                    type="button"
                    aria-pressed={chosen === total.rule}
                    onClick={() => set({ rule: total.rule })}
                    className={`grid min-h-11 w-full grid-cols-[minmax(0,1fr)_auto] items-center gap-x-3 border-l-4 px-2 py-1 text-left hover:bg-well ${chosen === total.rule ? 'border-plum bg-plumwash' : 'border-transparent'}`}
                  >
                    <span className="min-w-0">
                      <b className="block truncate">{ruleName(total.rule)}</b>
                      <span aria-hidden className="mt-1 flex h-2.5 bg-well">
                        <span style={{ width: `${share(total.breaks, total.visits)}%`, background: 'var(--ink)' }} />
                        <span
                          style={{
                            width: `${share(total.waived, total.visits)}%`,
                            background: 'repeating-linear-gradient(135deg, var(--plum) 0 4px, transparent 4px 7px)'
                          }}
                        />
                      </span>
                    </span>
                    <span className="fine text-right">
                      {share(total.breaks + total.waived, total.visits)} %
                      <span className="block">
                        {total.breaks} + {total.waived} of {total.visits}
                      </span>
                    </span>
                  </button>
                </li>
              ))}
            </ul>
          </section>
          {chosen && (
            <OneRule
              key={`${chosen} ${months}`}
              rule={chosen}
              months={months}
              figures={(rules ?? []).filter(({ rule }) => rule === chosen)}
            />
          )}
        </div>
      )}
    </Page>
  )
}

function OneRule({ rule, months, figures }: { rule: string; months: string; figures: RuleMonth[] }) {
  const { models } = useModels()
  const { value, problem } = useRead('GET /figures/:rule', { params: { rule }, query: { months } })
  const byModel = value?.models ?? (problem === null ? null : [])
  const nameOf = (id: string) => {
    const model = models?.find((candidate) => candidate.id === id)
    return model ? `${model.maker} ${model.name}` : id
  }
  const perMonth = figures.map(({ month, visits, breaks, waived }) => ({
    month,
    breaks: share(breaks, visits),
    waived: share(waived, visits),
    of: `${breaks} + ${waived} of ${visits} visits`
  }))
  const perModel = (byModel ?? [])
    .filter(({ units }) => units > 0)
    .map(({ model, units, breaks, waived }) => ({
      model: nameOf(model),
      breaks: share(breaks, units),
      waived: share(waived, units),
      of: `${breaks} + ${waived} of ${units} units`
    }))
  return (
    <section aria-label={ruleName(rule)} className="paper flex min-w-0 flex-col gap-4 p-4">
      <div>
        <h2 className="text-lg">{ruleName(rule)}</h2>
        <p className="fine">
          <Link className="underline" to={`/homes?rule=${rule}&outcome=waived`}>
            Homes where it is waived
          </Link>{' '}
          ·{' '}
          <Link className="underline" to={`/homes?rule=${rule}&outcome=breaks`}>
            where it is broken
          </Link>
        </p>
      </div>
      <div>
        <h3>By month, % of visits</h3>
        <div className="mt-1 h-52">
          <ResponsiveContainer width="100%" height="100%">
            <BarChart data={perMonth} margin={{ top: 8, right: 8, bottom: 0, left: 0 }} accessibilityLayer>
              <CartesianGrid stroke="var(--rule)" vertical={false} />
              <XAxis dataKey="month" {...axis} />
              <YAxis
                {...axis}
                width={56}
                unit=" %"
                domain={[0, (most: number) => Math.max(10, Math.ceil(most / 10) * 10)]}
              />
              <Tooltip {...tooltip} />
              {parts.map(({ key, name, fill }) => (
                <Bar
                  key={key}
                  dataKey={key}
                  name={name}
                  stackId="of"
                  fill={fill}
                  unit=" %"
                  isAnimationActive={false}
                  maxBarSize={44}
                />
              ))}
            </BarChart>
          </ResponsiveContainer>
        </div>
        <Table rows={perMonth.map(({ month, breaks, waived, of }) => [month, breaks, waived, of])} head="Month" />
      </div>
      {byModel &&
        (perModel.length === 0 ? (
          <p className="fine">It speaks of no unit by itself: there is nothing to tell by model.</p>
        ) : (
          <div>
            <h3>By model, % of its units</h3>
            <Table
              open
              rows={perModel.map(({ model, breaks, waived, of }) => [model, breaks, waived, of])}
              head="Model"
            />
          </div>
        ))}
    </section>
  )
}

function Table({
  rows,
  head,
  open = false
}: {
  rows: (readonly [string, number, number, string])[]
  head: string
  open?: boolean
}) {
  const table = (
    <table className="mt-1 w-full text-sm">
      <thead>
        <tr className="text-left text-soft">
          <th className="py-1 font-normal">{head}</th>
          <th className="font-normal">broken</th>
          <th className="font-normal">waived</th>
          <th className="font-normal">counted</th>
        </tr>
      </thead>
      <tbody>
        {rows.map(([name, breaks, waived, of]) => (
          <tr key={name} className="border-t border-rule">
            <td className="py-1 font-bold">{name}</td>
            <td>{breaks} %</td>
            <td>{waived} %</td>
            <td className="text-soft">{of}</td>
          </tr>
        ))}
      </tbody>
    </table>
  )
  return open ? (
    table
  ) : (
    <details>
      <summary className="min-h-11 content-center underline">The same as a table</summary>
      {table}
    </details>
  )
}
