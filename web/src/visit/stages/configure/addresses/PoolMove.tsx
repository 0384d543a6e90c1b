import { useMemo, useState } from 'react'
import { auditRecord } from '@pasado/core/work/addresses/home-audit'
import { parseIpv4 } from '@pasado/core/values/ipv4'
import { standing, type Pool } from '@pasado/core/record/record'
import { useMayWrite } from '../../../session/facts'
import { useVisit } from '../../../session/visit-state'
import { write } from '../../../session/write'
import { Button } from '../../../../ui/Button'
import { Notice } from '../../../../ui/Notice'
import { Field, Input } from '../../../../ui/Field'

/** A pool grown or moved, with everything that follows shown before it is done. */
export function PoolMove({ pool }: { pool: Pool }) {
  const record = useVisit((state) => state.record)
  const school = useVisit((state) => state.standard.policy.poolSchool)
  const mayWrite = useMayWrite()
  const [open, setOpen] = useState(false)
  const [from, setFrom] = useState(pool.facts.from ?? '')
  const [to, setTo] = useState(pool.facts.to ?? '')
  const wrong = [from, to].find((candidate) => parseIpv4(candidate.trim()) === null)
  const audits = useMemo(() => {
    const parts = (pools: Pool[]) => auditRecord(record, school, pools)
    const pools = standing(record.pools)
    return wrong === undefined
      ? {
          now: parts(pools),
          then: parts(
            pools.map((other) =>
              other.id === pool.id ? { ...other, facts: { ...other.facts, from: from.trim(), to: to.trim() } } : other
            )
          )
        }
      : null
  }, [record, school, pool.id, from, to, wrong])
  if (!mayWrite || !pool.facts.from || !pool.facts.to) return null
  const key = ({ code, subject }: { code: string; subject: string }) => `${code} ${subject}`
  const comes = audits
    ? audits.then.findings.filter((finding) => !audits.now.findings.some((other) => key(other) === key(finding)))
    : []
  const goes = audits
    ? audits.now.findings.filter((finding) => !audits.then.findings.some((other) => key(other) === key(finding)))
    : []
  const [first, last] = [parseIpv4(from.trim()), parseIpv4(to.trim())]
  const size = first !== null && last !== null ? last - first + 1 : 0
  if (!open)
    return (
      <Button
        kind="quiet"
        className="-ml-2 justify-self-start"
        onClick={() => {
          setFrom(pool.facts.from!)
          setTo(pool.facts.to!)
          setOpen(true)
        }}
      >
        Move or grow it
      </Button>
    )
  return (
    <Notice role="group" aria-label="Move or grow the pool" edge="plum" className="mt-2 md:col-span-4">
      <div className="grid gap-3 sm:grid-cols-2">
        <Field label="New pool from">
          <Input exact autoComplete="off" value={from} onChange={(event) => setFrom(event.target.value)} />
        </Field>
        <Field label="to">
          <Input exact autoComplete="off" value={to} onChange={(event) => setTo(event.target.value)} />
        </Field>
      </div>
      <div className="mt-2" aria-live="polite">
        {wrong !== undefined ? (
          <p className="font-bold">{wrong || 'An empty field'} is no address: four numbers 0–255 joined by dots.</p>
        ) : (
          <>
            <p>
              {size > 0 ? `${size} addresses.` : 'It would hold none: turn its ends round.'}{' '}
              {comes.length === 0 && goes.length === 0 ? 'Nothing else changes.' : ''}
            </p>
            {comes.length > 0 && (
              <>
                <p className="font-bold">This would then be wrong:</p>
                <ul className="list-disc pl-5">
                  {comes.map((come) => (
                    <li key={key(come)}>{come.detail}</li>
                  ))}
                </ul>
              </>
            )}
            {goes.length > 0 && (
              <>
                <p className="font-bold">This would be mended:</p>
                <ul className="list-disc pl-5">
                  {goes.map((goe) => (
                    <li key={key(goe)}>{goe.detail}</li>
                  ))}
                </ul>
              </>
            )}
          </>
        )}
      </div>
      <div className="mt-2 flex gap-2">
        <Button
          kind="main"
          disabled={wrong !== undefined || size <= 0}
          onClick={() => {
            write('pool.set', { id: pool.id, set: { from: from.trim(), to: to.trim() } })
            setOpen(false)
          }}
        >
          Do it
        </Button>
        <Button onClick={() => setOpen(false)}>Leave it</Button>
      </div>
    </Notice>
  )
}
