import { mkdir, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { modelKey, type Model } from '@pasado/core/catalogue/model'
import type { Entry, Placed } from '@pasado/core/record/entry'
import { secretFor, standing, unitName, type VisitRecord } from '@pasado/core/record/record'
import { reduce } from '@pasado/core/record/reduce'
import { demoLabels } from '@pasado/demo/labels/demo-units'
import { drawLabel } from '@pasado/demo/labels/draw'
import { labelSheet, type SheetLabel } from '@pasado/demo/labels/sheet'
import type { LabelValues } from '@pasado/demo/labels/values'
import { conditions, photograph, type Condition } from '@pasado/demo/labels/wear'
import { call, logIn } from './server'
import { parseWords, unreadable, UsageError } from './words'

interface ToPrint {
  caption: string
  file: string
  values: LabelValues
}

/** `pasado labels`: labels as PNG, worn ones as photographs, and a sheet of them as PDF. */
export async function labels(words: readonly string[]): Promise<number> {
  try {
    const { rest, has, values } = parseWords(words, ['--secrets'], ['--out', '--condition'])
    if (rest.length !== 1) throw new UsageError('say which: pasado labels demo, or pasado labels VISIT')
    const condition = values.get('--condition') ?? 'print'
    if (condition !== 'print' && !(conditions as readonly string[]).includes(condition))
      throw new UsageError(`--condition must be print, ${conditions.join(', ')}`)
    const folder = values.get('--out') ?? 'labels'
    const found = rest[0] === 'demo' ? ofDemo() : await ofVisit(rest[0]!, has.has('--secrets'))
    await mkdir(folder, { recursive: true })
    const sheet: SheetLabel[] = []
    for (const [at, { caption, file, values: printed }] of found.entries()) {
      const label = await drawLabel(printed)
      const png = await (condition === 'print' ? label : photograph(label, condition as Condition, at + 1)).encode(
        'png'
      )
      await writeFile(join(folder, `${file}.png`), png)
      sheet.push({ caption, png: await label.encode('png'), width: label.width, height: label.height })
    }
    await writeFile(join(folder, 'sheet.pdf'), await labelSheet('Labels for practice', sheet))
    console.log(`${found.length} labels and sheet.pdf are in ${folder}.`)
    return 0
  } catch (error) {
    return unreadable(error)
  }
}

const fileName = (text: string) =>
  text
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '')

function ofDemo(): ToPrint[] {
  return demoLabels().map(({ street, unit, values }) => ({
    caption: `${street}: ${unit}`,
    file: fileName(`${street} ${unit}`),
    values
  }))
}

const unknown = '········'

/** The labels of a visit's units as they are recorded; their secrets only where asked for, and each showing is logged. */
async function ofVisit(visit: string, secrets: boolean): Promise<ToPrint[]> {
  const { url, cookie, logOut } = await logIn()
  try {
    const read = async <T>(path: string, body?: unknown) =>
      (await (
        await call(`${url}/api${path}`, {
          method: body === undefined ? 'GET' : 'POST',
          headers: { cookie, ...(body === undefined ? {} : { 'content-type': 'application/json' }) },
          ...(body === undefined ? {} : { body: JSON.stringify(body) })
        })
      ).json()) as T
    const { entries, models } = await read<{ entries: Entry[]; models: Model[] }>(
      `/visits/${encodeURIComponent(visit)}`
    )
    const record = reduce(entries as Placed[])
    const secret = async (purpose: Parameters<typeof secretFor>[1], unit: string) => {
      const held = secretFor(record, purpose, unit)
      return held && secrets
        ? (await read<{ value: string }>(`/visits/${visit}/secrets/${held.ref}/show`, { why: 'checking it' })).value
        : unknown
    }
    const found: ToPrint[] = []
    for (const unit of standing(record.units)) {
      const model = models.find(
        (candidate) =>
          modelKey(candidate.id, candidate.version) === modelKey(unit.facts.model ?? '', unit.facts.modelVersion ?? 1)
      )
      if (model && unit.facts.serial && unit.facts.mac)
        found.push({
          caption: unitName(unit),
          file: fileName(unitName(unit)),
          values: await valuesOf(unit, model, (purpose) => secret(purpose, unit.id))
        })
    }
    return found
  } finally {
    await logOut()
  }
}

async function valuesOf(
  { facts }: VisitRecord['units'][string],
  model: Model,
  secret: (purpose: 'label-key' | 'setup-code' | 'label-login') => Promise<string>
): Promise<LabelValues> {
  const has = new Set(model.label)
  const [user = '', password = ''] = has.has('login') ? (await secret('label-login')).split(' / ') : []
  return {
    maker: model.maker,
    model: model.name,
    serial: facts.serial!,
    mac: facts.mac!,
    ...(facts.defaultSsid ? { ssid: facts.defaultSsid } : {}),
    ...(has.has('key') ? { key: await secret('label-key') } : {}),
    ...(has.has('setup-code') ? { setupCode: await secret('setup-code') } : {}),
    ...(facts.pageAddress ? { address: facts.pageAddress } : {}),
    ...(has.has('login') ? { user, password } : {})
  }
}
