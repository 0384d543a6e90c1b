import { timingSafeEqual, createHash } from 'node:crypto'
import type { Context, Next } from 'koa'
import { catalogueOf } from '@pasado/core/catalogue/model'
import { playHouse } from '@pasado/core/house/house'
import { readingOf } from '@pasado/core/house/pages'
import { allModels } from '../db/catalogue'
import { readHouse } from '../db/houses'
import type { Services } from '../services'

const PATH = /^\/stand-ins\/houses\/([0-9a-f-]{36})\/units\/([a-z0-9-]{1,60})\/status$/

/**
 * The own pages of units of a simulated house, over HTTP with Basic login, as `name=value` lines. It stands in for real units,
 * so that what reads it would read those.
 */
export function devicePages(services: Services) {
  return async (context: Context, next: Next): Promise<void> => {
    const found = PATH.exec(context.path)
    if (!found) return void (await next())
    context.set('Cache-Control', 'no-store')
    const stored = await readHouse(services.db, found[1]!)
    const unit = stored?.definition.units.find(({ id }) => id === found[2])
    if (!stored || !unit) {
      context.status = 404
      return
    }
    if (unit.login && !isLogin(context.get('authorization'), unit.login)) {
      context.status = 401
      context.set('WWW-Authenticate', 'Basic realm="unit", charset="UTF-8"')
      return
    }
    const values = readingOf(
      playHouse(stored.definition, stored.actions, catalogueOf(await allModels(services.db))),
      unit.id
    )
    // Nothing answers where it is switched off or still starting.
    if (!values) {
      context.status = 504
      return
    }
    context.type = 'text/plain; charset=utf-8'
    context.body = `${Object.entries(values)
      .map(([name, value]) => `${name}=${value}`)
      .join('\n')}\n`
  }
}

function isLogin(header: string, { user, password }: { user: string; password: string }): boolean {
  const digest = (text: string) => createHash('sha256').update(text).digest()
  return timingSafeEqual(
    digest(header),
    digest(`Basic ${Buffer.from(`${user}:${password}`, 'utf8').toString('base64')}`)
  )
}
