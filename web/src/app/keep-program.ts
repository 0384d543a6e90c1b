import { Workbox } from 'workbox-window'
import { useNewerProgram } from './newer-program'

let begun = false

/**
 * Has the browser keep the program itself on this device, so that it starts without a connection. A newer version waits until
 * the person takes it: nothing that is being typed is lost, and the parts of two versions are never mixed.
 */
export function keepProgram(): void {
  if (begun || !import.meta.env.PROD || !('serviceWorker' in navigator)) return
  begun = true
  const workbox = new Workbox('/program-keeper.js')
  workbox.addEventListener('waiting', () =>
    useNewerProgram.setState({
      load: () => {
        workbox.addEventListener('controlling', () => location.reload())
        workbox.messageSkipWaiting()
      }
    })
  )
  // A browser that keeps nothing, in a private window for one, goes on without.
  workbox.register().catch(() => undefined)
}
