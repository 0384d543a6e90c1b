import { isAway, isInTrouble, openPool, type Connection, type Db } from './pool'

/** So many reads at once on the other nodes. */
const CONNECTIONS = 4

/**
 * Reads that may be a moment behind: of a cluster they go to whichever node there is, and leave the one that is written to alone. Where no
 * other can be asked, the one that is written to answers.
 */
export class Reads {
  readonly #others: Db | null

  /** @param url where any node is; null where there is one */
  constructor(
    private readonly db: Db,
    url: string | null
  ) {
    this.#others = url === null ? null : openPool(url, CONNECTIONS)
  }

  /** What is found on some node. */
  async ask<T>(find: (db: Connection) => Promise<T>): Promise<T> {
    if (this.#others)
      try {
        return await find(this.#others)
      } catch (error) {
        // One that has not heard of the newest tables yet says so too.
        if (!isAway(error) && !isInTrouble(error) && (error as { code?: string }).code !== 'ER_NO_SUCH_TABLE')
          throw error
      }
    return find(this.db)
  }

  async close(): Promise<void> {
    await this.#others?.end()
  }
}
