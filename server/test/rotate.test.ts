import { randomBytes } from 'node:crypto'
import { copyFile, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { demoVisits } from '@pasado/demo/all'
import { integrityProblems, readRecordFile } from '@pasado/core/documents/record-file'
import { loadVisits } from '../../scripts/load-demo'
import { rows } from '../src/db/pool'
import { visitFile } from '../src/logbook/read'
import { masterKeyFrom } from '../src/vault/master-key'
import { rotateMasterKey } from '../src/vault/rotate'
import { servicesOn, startCompany } from '@pasado/testing/company'

let company: Awaited<ReturnType<typeof startCompany>>
beforeAll(async () => {
  company = await startCompany()
  await loadVisits(company.services, demoVisits().slice(0, 2), new Date())
})
afterAll(() => company.stop())

it('under another master key every secret opens as before, reuse is still found out, and old seals verify beside new ones', async () => {
  const { db, vault } = company.services
  const visits = (
    await rows<{ id: string }>(db, 'SELECT visit_id AS id FROM vault_keys WHERE wrapped IS NOT NULL ORDER BY visit_id')
  ).map(({ id }) => id)
  const before = await Promise.all(visits.map((visit) => vault.openAll(db, visit)))
  const twins = () =>
    rows<{ count: number }>(
      db,
      'SELECT COUNT(*) AS count FROM vault_secrets GROUP BY company_print ORDER BY count DESC'
    )
  const reuse = await twins()
  const sealed = (await rows<{ id: string }>(db, 'SELECT id FROM visits WHERE sealed_at IS NOT NULL LIMIT 1'))[0]!.id

  const to = randomBytes(32)
  const epochs = join(company.database.folder, 'key.epochs')
  expect(await rotateMasterKey(db, await masterKeyFrom(join(company.database.folder, 'key')), to, epochs)).toBe(
    visits.length
  )
  await writeFile(join(company.database.folder, 'next'), to.toString('hex'), { mode: 0o600 })
  await copyFile(epochs, join(company.database.folder, 'next.epochs'))
  const after = await servicesOn(company.database.url, join(company.database.folder, 'next'))
  try {
    expect(after.keys.keyName).not.toBe(company.services.keys.keyName)
    expect(await Promise.all(visits.map((visit) => after.vault.openAll(after.db, visit)))).toEqual(before)
    expect(await twins()).toEqual(reuse)
    await expect(vault.openAll(db, visits[0]!)).rejects.toThrow()
    const text = await visitFile(after, sealed, null)
    expect(integrityProblems(readRecordFile(text), text)).toEqual([])
    expect(
      (await rows<{ name: string }>(after.db, 'SELECT name FROM seal_keys')).map(({ name }) => name).sort()
    ).toEqual([company.services.keys.keyName, after.keys.keyName].sort())
  } finally {
    await after.db.end()
  }
})
