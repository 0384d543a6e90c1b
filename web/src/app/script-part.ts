import { lazy, type ComponentType } from 'react'

/** How long it is waited before a part of the program that did not come is asked for again, ms; and how often, while there is a connection. */
const [AGAIN_MS, MOST_TRIES] = [2_000, 15]

/**
 * Loads a part of the program's script. Where it does not come, it is asked for again: a connection that is lost for a while in a cellar
 * is no fault of the page.
 * @throws where it did not come again and again although there is a connection
 */
export async function scriptPart<T>(load: () => Promise<T>): Promise<T> {
  for (let tries = 1; ; tries++) {
    try {
      return await load()
    } catch (error) {
      if (tries >= MOST_TRIES && navigator.onLine) throw error
      await new Promise((resolve) => setTimeout(resolve, AGAIN_MS))
    }
  }
}

/** A component whose script is loaded when it is first shown. */
export const laterPart = <P extends object>(load: () => Promise<ComponentType<P>>) =>
  lazy(async () => ({ default: await scriptPart(load) }))
