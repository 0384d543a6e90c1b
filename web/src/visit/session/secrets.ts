import { v7 as uuidv7 } from 'uuid'
import type { RevealReason, SecretAssessment, SecretPurpose } from '@pasado/core/record/answers'
import { makePassphrase, pickerFrom } from '@pasado/core/secrets/make'
import { wepKeyProblem, wpaPassphraseProblem } from '@pasado/core/values/wifi-qr'
import { ask } from '../../app/api'
import { withPassword } from '../../app/password-again'
import { useOutbox } from '../../outbox/outbox'
import { takeLook } from './record-now'
import { useVisit } from './visit-state'

/** What a secret belongs to. */
export interface SecretOwner {
  purpose: SecretPurpose
  thing: 'brief' | 'unit' | 'network'
  id: string
}

/** A secure picker: words are chosen by the browser's own random source. */
export const pick = pickerFrom(() => crypto.getRandomValues(new Uint32Array(1))[0]!)

/** A passphrase of words and digits. */
export const newPassphrase = () => makePassphrase(pick)

/** What is wrong with a secret before it is sent, in words; null where nothing is. */
export function secretProblem(purpose: SecretPurpose, value: string, wep: boolean): string | null {
  if (value === '') return 'is empty'
  if (value.length > 128) return 'is longer than 128 characters'
  if (purpose !== 'wifi-passphrase') return null
  return wep ? wepKeyProblem(value) : wpaPassphraseProblem(value)
}

/** Puts a secret into the vault. It goes straight to the server and is kept nowhere on the device. */
export async function keepSecret(
  owner: SecretOwner,
  value: string,
  origin: 'typed' | 'label' | 'made',
  { wep, ref, prepared }: { wep: boolean; ref: string; prepared: boolean }
): Promise<SecretAssessment> {
  const { id: visit, pending } = useVisit.getState()
  const { id: from, rows } = useOutbox.getState()
  // Where nothing waits before it, it takes its place among the outbox's lines; else it would come before those that were written earlier.
  const inOrder = pending.length === 0 && !rows.some((row) => row.visit === visit && row.refused === null)
  const { assessed } = await ask('POST /visits/:id/secrets', {
    params: { id: visit! },
    body: {
      ref,
      ...owner,
      origin,
      value,
      ...(prepared ? { prepared: true as const } : {}),
      ...(inOrder ? { outbox: { from, ...takeLook() } } : {}),
      ...(owner.purpose === 'wifi-passphrase' ? { security: wep ? 'wep' : 'wpa' } : {})
    }
  })
  return assessed
}

/** A new reference for a secret; the same one may be sent twice. */
export const newRef = () => uuidv7()

/** Asks the vault for a secret; who and why is logged. */
export async function showSecret(ref: string, why: RevealReason): Promise<string> {
  const { id: visit } = useVisit.getState()
  return (
    await withPassword(() => ask('POST /visits/:id/secrets/:ref/show', { params: { id: visit!, ref }, body: { why } }))
  ).value
}
