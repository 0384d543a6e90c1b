import { ONE_MARIADB, ownMariaDb } from './database'

/** One MariaDB for all tests of a run, each on a database of its own. */
export default async function oneMariaDb(): Promise<() => Promise<void>> {
  const { url, folder, drop } = await ownMariaDb()
  process.env[ONE_MARIADB] = JSON.stringify({ url, folder })
  return drop
}
