import { execFileSync } from 'node:child_process'
import { join } from 'node:path'
import { expect, it } from 'vitest'
import { formatMoment, isZone } from '@pasado/core/values/moment'

it('a moment is told on one clock, however it was written down', () => {
  expect(
    ['2026-07-01T11:05:00+02:00', '2026-07-01T09:05:00Z', '2026-07-01T09:05:00.000Z'].map((iso) =>
      formatMoment(iso, 'Europe/Berlin')
    )
  ).toEqual(Array(3).fill('1 Jul 2026, 11:05'))
  expect(formatMoment('2026-10-25T00:30:00Z', 'Europe/Lisbon')).toBe('25 Oct 2026, 01:30')
  expect(formatMoment('2026-12-31T23:59:00Z', 'Pacific/Auckland')).toBe('1 Jan 2027, 12:59')
  expect(formatMoment('no moment', 'UTC')).toBe('no moment')
  expect([isZone('Europe/Lisbon'), isZone('UTC'), isZone('Nowhere/At all')]).toEqual([true, true, false])
})

it('the day’s minutes are right in a zone whose clocks change that day', () => {
  const script = `import { atWallMinute, wallMinute } from '@pasado/core/work/day/day-plan'
    for (const [month, date] of [[2, 29], [9, 25]]) { const day = new Date(2026, month, date); console.log(wallMinute(new Date(2026, month, date, 10), day), atWallMinute(day, 600).getHours()) }`
  const out = execFileSync('node', ['--import', 'tsx', '--input-type=module', '-e', script], {
    cwd: join(import.meta.dirname, '..'),
    env: { ...process.env, TZ: 'Europe/London' },
    encoding: 'utf8'
  })
  expect(out.trim().split('\n')).toEqual(['600 10', '600 10'])
})
