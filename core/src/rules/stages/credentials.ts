import { secretFor, type Secret } from '../../record/record'
import {
  aboutUnit,
  atUnit,
  breaks,
  holds,
  unproven,
  type Home,
  type Place,
  type Rule,
  type Verdict,
  rule
} from '../rule'
import { eachOnce, hasOwnFact } from './answered-once'
import { answeredOf, answeredWith, factOf } from '../../work/units/run-as-one'
import type { KnownUnit } from '../../work/units/known-unit'

/** Units that have a page or controller of their own to log in to. */
const withLogin = ({ model }: KnownUnit) =>
  model !== null &&
  (model.label.includes('login') ||
    model.methods.some(({ kind }) => kind === 'own-page' || kind === 'app' || kind === 'adoption'))

/** What is not known of the way into a unit’s own page, or what is wrong with it beside the password itself; null where nothing is. */
function besidePassword(home: Home, known: KnownUnit, origin: Secret['origin'], place: Place): Verdict | null {
  const about = aboutUnit(known)
  const isUnread =
    origin !== 'made' &&
    known.model?.label.includes('login') === true &&
    !secretFor(home.record, 'label-login', known.unit.id)
  if (isUnread)
    return unproven(
      'Whether it is the default is not known: the login on its label is not recorded.',
      'Read its label.',
      { stage: 'kit', kind: 'secret', id: known.unit.id, field: 'label-login' },
      about
    )
  if (known.model?.recoveryQuestions) {
    const { recovery } = known.unit.facts
    const at = atUnit('configure', known.unit, 'recovery')
    if (recovery === undefined)
      return unproven(
        'Its page asks recovery questions; how they were answered is not recorded.',
        'Answer them with made-up words, put those into the vault, and record it.',
        at,
        about
      )
    if (recovery === 'real')
      return breaks(
        'Its recovery questions are answered truly: who knows the customer knows the way in.',
        'Answer them with made-up words, and put those into the vault.',
        at,
        about
      )
    if (recovery === 'made-up' && !secretFor(home.record, 'recovery-answers', known.unit.id))
      return unproven(
        'Its recovery questions are answered with made-up words, and the vault has none: nobody can answer them again.',
        'Put the words into the vault.',
        { ...place, field: 'recovery-answers' },
        about
      )
  }
  return null
}

function judgeAdmin(home: Home, known: KnownUnit): Verdict {
  const about = aboutUnit(known)
  const place: Place = { stage: 'configure', kind: 'secret', id: known.unit.id, field: 'admin-password' }
  const answered = answeredOf(
    home.units,
    known,
    ({ unit }) => secretFor(home.record, 'admin-password', unit.id) ?? undefined
  )
  const secret = answered?.value
  if (!secret) return unproven('No admin password of ours is in the vault.', 'Make one or type one.', place, about)
  const { print, score, usedElsewhere } = secret.assessed
  const same = new Set(
    Object.values(home.record.secrets)
      .filter((other) => other.assessed.print === print && other.ref !== secret.ref)
      // One that was replaced since is in use no more; a default is one for ever.
      .filter(
        ({ ref, purpose, id }) => purpose !== 'wifi-passphrase' || secretFor(home.record, purpose, id)?.ref === ref
      )
      .map(({ purpose }) => purpose)
  )
  if (same.has('label-login') || same.has('label-key') || same.has('setup-code'))
    return breaks('It is the default of a label.', 'Make a new one.', place, about)
  if (same.has('wifi-passphrase')) return breaks('It is a Wi-Fi passphrase as well.', 'Make a new one.', place, about)
  if (usedElsewhere) return breaks('The same password is in use at another home.', 'Make a new one.', place, about)
  if (score < home.policy.leastStrength)
    return breaks(
      `Strength ${score} of 4; the standard wants ${home.policy.leastStrength}.`,
      'Make a new one.',
      place,
      about
    )
  // Of what is run with another the other's page asked.
  const open = answered.on === known ? besidePassword(home, known, secret.origin, place) : null
  return open ?? holds(`Strength ${score} of 4, used nowhere else${answeredWith(known, answered)}.`, about)
}

export const credAdmin = rule({
  id: 'cred-admin',
  name: 'Admin password',
  stage: 'configure',
  level: 'must',
  minutes: 3,
  sparesUntouched: true,
  needs: ['model'],
  statement:
    'Where a unit has a login of its own, the admin password set by us (one answer for a mesh or all that a controller runs): not the default, strong enough, not a Wi-Fi passphrase, not that of another site.',
  judge: (home) =>
    eachOnce(
      home,
      home.units.filter(withLogin),
      ({ unit }) => Boolean(secretFor(home.record, 'admin-password', unit.id)),
      (known) => judgeAdmin(home, known)
    )
})

export const credLocalAdmin = rule({
  id: 'cred-local-admin',
  name: 'Admin from inside',
  stage: 'configure',
  level: 'should',
  minutes: 1,
  sparesUntouched: true,
  needs: ['model'],
  statement: 'Local administrator restricted to the inside; remote administration off unless agreed.',
  judge: (home) =>
    eachOnce(home, home.units.filter(withLogin), hasOwnFact('localAdminOnly', 'remoteAdmin'), (known) => {
      const { units } = home
      const { value: localAdminOnly, with: whose } = factOf(units, known, 'localAdminOnly')
      const { value: remoteAdmin } = factOf(units, known, 'remoteAdmin')
      if (remoteAdmin === 'on')
        return breaks(
          'Remote administration is on and was not agreed.',
          'Switch it off, or record that it was agreed.',
          atUnit('configure', known.unit, 'remoteAdmin'),
          aboutUnit(known)
        )
      if (localAdminOnly === false)
        return breaks(
          'The administrator can log in from outside.',
          'Restrict it to the inside.',
          atUnit('configure', known.unit, 'localAdminOnly'),
          aboutUnit(known)
        )
      if (localAdminOnly === undefined)
        return unproven(
          'Whether the administrator is restricted to the inside is not recorded.',
          'Restrict it, then record it.',
          atUnit('configure', known.unit, 'localAdminOnly'),
          aboutUnit(known)
        )
      if (remoteAdmin === undefined)
        return unproven(
          'Whether remote administration is off is not recorded.',
          'Look, then record it.',
          atUnit('configure', known.unit, 'remoteAdmin'),
          aboutUnit(known)
        )
      return holds(
        `Inside only; remote administration ${remoteAdmin === 'off' ? 'is off' : 'was agreed'}${whose}.`,
        aboutUnit(known)
      )
    })
})

export const credAccount = rule({
  id: 'cred-account',
  name: 'Maker’s account',
  stage: 'configure',
  level: 'must',
  minutes: 4,
  sparesUntouched: true,
  needs: ['model'],
  statement: "The maker's account is the customer's; no technician account is left on the unit.",
  judge: (home) =>
    eachOnce(
      home,
      home.units.filter(({ model }) => model?.methods.some(({ needs }) => needs.includes('customer-account'))),
      hasOwnFact('accountOwner', 'technicianRemoved'),
      (known) => {
        const { units } = home
        const { value: accountOwner, with: whose } = factOf(units, known, 'accountOwner')
        const { value: technicianRemoved } = factOf(units, known, 'technicianRemoved')
        if (accountOwner === undefined)
          return unproven(
            "Whose the maker's account is, is not recorded.",
            'Record whose account it is.',
            atUnit('configure', known.unit, 'accountOwner'),
            aboutUnit(known)
          )
        if (accountOwner === 'technician')
          return breaks(
            'The account is the technician’s.',
            'Move it to an account of the customer’s.',
            atUnit('configure', known.unit, 'accountOwner'),
            aboutUnit(known)
          )
        if (technicianRemoved === undefined)
          return unproven(
            'Whether technicians’ accounts were taken off is not recorded.',
            'Take them off, then tick it.',
            atUnit('configure', known.unit, 'technicianRemoved'),
            aboutUnit(known)
          )
        if (!technicianRemoved)
          return breaks(
            'A technician’s account is still on it.',
            'Take it off.',
            atUnit('configure', known.unit, 'technicianRemoved'),
            aboutUnit(known)
          )
        return holds(
          `${accountOwner === 'none' ? 'No account is used' : "The account is the customer's; no technician's is left"}${whose}.`,
          aboutUnit(known)
        )
      }
    )
})

export const credNoLeak = rule({
  id: 'cred-no-leak',
  name: 'No secret in the logbook',
  stage: 'configure',
  level: 'must',
  minutes: 5,
  statement: 'No secret of the visit appears in a note, a name, a photo caption or a log line.',
  judge: ({ record }) =>
    Object.keys(record.secrets).length
      ? [holds('Every line was compared with the vault when it was written; none holds a secret.')]
      : []
})

/** Rules of Configure about logins. */
export const credentialRules: readonly Rule[] = [credAdmin, credLocalAdmin, credAccount, credNoLeak]
