import { addDays, format } from 'date-fns'
import { custodies, secretPurposes, type SecretPurpose } from '@pasado/core/record/answers'
import { nextErasure, secretsLeft } from '@pasado/core/work/erasure/erasure'
import { Chips } from '../../../ui/Chips'
import { useMayWrite } from '../../session/facts'
import { placeKey } from '../../session/place'
import { useVisit } from '../../session/visit-state'
import { write } from '../../session/write'
import { Field, Input } from '../../../ui/Field'
import { Notice } from '../../../ui/Notice'

const purposeWords: Record<SecretPurpose, string> = {
  'wifi-passphrase': 'Wi-Fi passphrases',
  'admin-password': 'admin passwords',
  'label-key': 'keys of labels',
  'label-login': 'logins of labels',
  'setup-code': 'setup codes',
  'provider-login': 'provider’s login',
  'recovery-answers': 'recovery answers'
}

/** Who keeps which secrets and until when, as the customer says. */
export function Custody() {
  const custody = useVisit((state) => state.record.custody)
  const secrets = useVisit((state) => state.record.secrets)
  const days = useVisit((state) => state.standard.policy.eraseAfterDays)
  const mayWrite = useMayWrite()
  const words = {
    'erase-after-30-days': days === 0 ? 'we erase them when it is sealed' : `we erase them ${days} days after sealing`,
    'customer-only-now': 'only the customer keeps them',
    'company-keeps': 'we keep some for service'
  }
  const there = secretPurposes.filter((purpose) => Object.values(secrets).some((secret) => secret.purpose === purpose))
  const keeps = custody?.keeps ?? []
  const set = (keep: readonly SecretPurpose[], until: string | undefined) =>
    write('custody.answered', {
      custody: 'company-keeps',
      ...(keep.length ? { keeps: [...keep] } : {}),
      ...(until ? { until } : {})
    })
  const soonest = format(addDays(new Date(), 1), 'yyyy-MM-dd')
  return (
    <div
      data-place={placeKey({ kind: 'custody', id: 'custody', field: 'custody' })}
      className="border-b border-rule py-2"
    >
      <div className="flex flex-wrap items-center gap-x-3 gap-y-2">
        <p className="label w-36">The passwords</p>
        <Chips
          label="Who keeps the passwords"
          value={custody?.custody}
          disabled={!mayWrite}
          options={custodies.map((value) => ({ value, label: words[value] }))}
          onChoose={(value) => {
            if (value === 'company-keeps') set(keeps, custody?.until)
            else write('custody.answered', { custody: value })
          }}
        />
      </div>
      {custody?.custody === 'company-keeps' && (
        <div className="mt-2 flex flex-wrap items-end gap-x-6 gap-y-2 border-l-4 border-plum pl-3">
          <div role="group" aria-label="Which we keep" className="flex flex-wrap gap-2">
            {there.map((purpose) => (
              <button
                key={purpose}
                type="button"
                className="chip"
                disabled={!mayWrite}
                aria-pressed={keeps.includes(purpose)}
                data-state={keeps.includes(purpose) ? 'on' : 'off'}
                onClick={() =>
                  set(
                    keeps.includes(purpose) ? keeps.filter((keep) => keep !== purpose) : [...keeps, purpose],
                    custody.until
                  )
                }
              >
                {purposeWords[purpose]}
              </button>
            ))}
          </div>
          <Field label="Until">
            <Input
              type="date"

              min={soonest}
              disabled={!mayWrite}
              value={custody.until ?? ''}
              onChange={(event) => set(keeps, event.target.value || undefined)}
            />
          </Field>
          <p className="fine grow">
            The others are erased {days} days after sealing, these when their day has passed. Nobody can bring them
            back.
          </p>
        </div>
      )}
    </div>
  )
}

/** What will be erased of a sealed visit, and when; or that it was. */
export function ErasureNote() {
  const record = useVisit((state) => state.record)
  const days = useVisit((state) => state.standard.policy.eraseAfterDays)
  const next = nextErasure(record, days)
  const count = secretsLeft(record).length
  let message: string | null = null
  if (record.secretsErased)
    message =
      'The secrets of this visit were erased: the key they were under was destroyed. The logbook says when, and by which key’s print that can be checked.'
  else if (next)
    message = `${next.refs.length} of ${count} secrets are erased by themselves on ${format(new Date(next.at), 'd MMMM yyyy')}.`
  else if (count) message = `${count} secrets are kept for service, without an end.`
  return (
    message && (
      <Notice as="p" edge="edge" className="mt-3">
        {message}
      </Notice>
    )
  )
}
