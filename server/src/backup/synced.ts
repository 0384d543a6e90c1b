import { open } from 'node:fs/promises'

/** Has what a folder names stay named when the power goes. */
export async function syncFolder(folder: string): Promise<void> {
  const handle = await open(folder)
  try {
    await handle.sync()
  } finally {
    await handle.close()
  }
}
