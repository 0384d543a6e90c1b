import type { ScriptedVisit } from './visit-script'
import { openScripts } from './visits/open'
import { sealedScripts } from './visits/sealed'

/** Every visit of the demo, oldest first. */
export function demoVisits(): ScriptedVisit[] {
  return [...sealedScripts(), ...openScripts()].sort((a, b) => a.openedAtMin - b.openedAtMin)
}
