import { laterSheet } from '../../app/later-sheet'

/** Sheets over a visit that are seldom opened: each has a script of its own. */
export const LogbookSheet = laterSheet(
  async () => (await import('./LogbookSheet')).LogbookSheet,
  ({ open }) => open
)
export const RunPlanSheet = laterSheet(
  async () => (await import('./RunPlanSheet')).RunPlanSheet,
  ({ open }) => open
)
export const GrantSheet = laterSheet(
  async () => (await import('./GrantSheet')).GrantSheet,
  ({ grant }) => grant !== null
)
export const NewerStandardSheet = laterSheet(
  async () => (await import('./NewerStandardSheet')).NewerStandardSheet,
  ({ open }) => open
)
