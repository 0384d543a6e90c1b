import { chmodSync } from 'node:fs'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { integrityProblems, readRecordFile } from '@pasado/core/documents/record-file'
import type { Finding } from '@pasado/core/rules/evaluate'
import { restoreDatabaseOfBefore } from '@pasado/testing/database-of-before'
import { rows, run } from '../src/db/pool'
import { judgedVisit, visitFile, visitForBrowser } from '../src/logbook/read'
import { rebuildProjections } from '../src/logbook/rebuild'
import { serve, type Running } from '../src/server'
import type { Services } from '../src/services'
import { servicesOn } from '@pasado/testing/company'
import { emptyDatabase } from '@pasado/testing/database'

let database: Awaited<ReturnType<typeof emptyDatabase>>
let services: Services
let running: Running
let listedBefore: { visit_id: string; rule: string; subject: string; outcome: string; level: string }[]
beforeAll(async () => {
  database = await emptyDatabase()
  const key = join(database.folder, 'key')
  await restoreDatabaseOfBefore(database.url, key)
  chmodSync(key, 0o600)
  const { openPool } = await import('../src/db/pool')
  const plain = openPool(database.url)
  listedBefore = await rows(
    plain,
    'SELECT f.* FROM findings f JOIN visits v ON v.id = f.visit_id WHERE v.sealed_at IS NOT NULL ORDER BY visit_id, rule, subject'
  )
  // Of one visit the list says something else than the rules of today do.
  const odd = listedBefore.find(({ outcome }) => outcome === 'holds')!
  await run(plain, "UPDATE findings SET outcome = 'waived' WHERE visit_id = ? AND rule = ? AND subject = ?", [
    odd.visit_id,
    odd.rule,
    odd.subject
  ])
  odd.outcome = 'waived'
  await plain.end()
  services = await servicesOn(database.url, key)
  running = await serve(services)
})
afterAll(async () => {
  await running.close()
  await database.drop()
})

const sealedVisits = async () =>
  (await rows<{ id: string }>(services.db, 'SELECT id FROM visits WHERE sealed_at IS NOT NULL ORDER BY id')).map(
    ({ id }) => id
  )
const keyOf = ({ rule, subject }: Finding) => `${rule} ${subject?.id ?? ''}`

it('what the rules said of sealed visits is kept as it was listed, and a rebuild does not touch it', async () => {
  const visits = await sealedVisits()
  expect(visits).toHaveLength(12)
  const before = new Map<string, string>()
  for (const visit of visits) {
    const { findings } = await judgedVisit(services.logbook, visit)
    const listed = new Map(
      listedBefore
        .filter((candidate) => candidate.visit_id === visit)
        .map((item) => [`${item.rule} ${item.subject}`, item])
    )
    expect(findings.length).toBe(listed.size)
    for (const finding of findings)
      expect([keyOf(finding), finding.outcome, finding.level]).toEqual([
        keyOf(finding),
        listed.get(keyOf(finding))!.outcome,
        listed.get(keyOf(finding))!.level
      ])
    before.set(visit, JSON.stringify(findings))
  }
  await rebuildProjections(services.logbook)
  for (const visit of visits) {
    services.logbook.states.forget(visit)
    expect(JSON.stringify((await judgedVisit(services.logbook, visit)).findings)).toBe(before.get(visit))
    expect((await visitForBrowser(services.logbook, visit)).verdicts).toEqual(JSON.parse(before.get(visit)!))
  }
})

it('every file is what it was: it verifies, and says nothing of verdicts', async () => {
  for (const visit of await sealedVisits()) {
    const text = await visitFile(services, visit, null)
    const file = readRecordFile(text)
    expect([integrityProblems(file, text), file.verdicts]).toEqual([[], undefined])
  }
})

it('secrets open with the key that came with it', async () => {
  const held = await rows<{ id: string }>(
    services.db,
    'SELECT visit_id AS id FROM vault_keys WHERE wrapped IS NOT NULL'
  )
  expect(held.length).toBeGreaterThan(5)
  for (const { id } of held) expect((await services.vault.openAll(services.db, id)).length).toBeGreaterThan(0)
})
