import { countSealed, countToCount } from '../server/src/db/figures'
import type { Db } from '../server/src/db/pool'
import { countHomesToCount, countStanding } from '../server/src/db/standing'

/** Waits until all figures are up to date, whoever counts: what another is at is there once it is done. */
export async function allCounted(db: Db): Promise<void> {
  while (
    (await countSealed(db)) ||
    (await countStanding(db)) ||
    (await countToCount(db)) ||
    (await countHomesToCount(db))
  )
    await new Promise((resolve) => setTimeout(resolve, 20))
}
