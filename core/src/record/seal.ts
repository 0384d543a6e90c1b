import { ed25519 } from '@noble/curves/ed25519.js'
import { hexToBytes, utf8ToBytes } from '@noble/hashes/utils.js'
import type { Model } from '../catalogue/model'
import { canonicalJson, digestOf } from '../values/canonical'
import type { Entry } from './entry'
import type { Body } from './entries/all'
import { anyThingsOf, standing, type VisitRecord } from './record'

/** The parts of a seal that are signed. */
export type SealedParts = Omit<Body<'sealed'>, 'signature'>

/** The text that the seal's signature covers: seals that vouch for the verdicts as well are of the second kind. */
export function sealText(visit: string, parts: SealedParts): string {
  return canonicalJson({ format: parts.verdicts === undefined ? 'pasado.seal/1' : 'pasado.seal/2', visit, ...parts })
}

/** What a seal vouches for: the chain's last link, the record, the standard and the models that were used, and what the rules said. */
export function sealParts(
  last: Entry,
  record: VisitRecord,
  standard: object,
  models: readonly Model[],
  verdicts: readonly object[],
  key: string
): SealedParts {
  return {
    chain: last.hash,
    record: digestOf(record),
    standard: digestOf(standard),
    catalogue: digestOf(models),
    verdicts: digestOf(verdicts),
    key
  }
}

/** True where the signature over a seal is that of the public key (32 octets, hexadecimal). */
export function sealSignatureHolds(visit: string, seal: Body<'sealed'>, publicKey: string): boolean {
  const { signature, ...parts } = seal
  try {
    return ed25519.verify(hexToBytes(signature), utf8ToBytes(sealText(visit, parts)), hexToBytes(publicKey))
  } catch {
    return false
  }
}

const CODES: Record<string, readonly (keyof Body<'sealed'>)[]> = {
  'PASADO.SEAL/1': ['chain', 'record', 'standard', 'catalogue', 'key', 'signature'],
  'PASADO.SEAL/2': ['chain', 'record', 'standard', 'catalogue', 'verdicts', 'key', 'signature']
}

/** A seal as the text of the square beside it: what was signed and the signature, in capitals, which make a small square. */
export function sealCode(visit: string, seal: Body<'sealed'>): string {
  const code = seal.verdicts === undefined ? 'PASADO.SEAL/1' : 'PASADO.SEAL/2'
  return [code, visit, ...CODES[code]!.map((name) => seal[name])].join(':').toUpperCase()
}

/** Reads the text of a seal's square; null where it is none. */
export function readSealCode(text: string): { visit: string; seal: Body<'sealed'> } | null {
  const [code = '', visit = '', ...parts] = text.trim().split(':')
  const partNames = Object.hasOwn(CODES, code.toUpperCase()) ? CODES[code.toUpperCase()]! : null
  if (!partNames || parts.length !== partNames.length || !parts.every((part) => /^[0-9a-f]+$/i.test(part))) return null
  return {
    visit: visit.toLowerCase(),
    seal: Object.fromEntries(partNames.map((name, at) => [name, parts[at]!.toLowerCase()])) as Body<'sealed'>
  }
}

/** The name of a public key: the first 16 digits of its SHA-256. */
export function keyName(publicKey: string): string {
  return digestOf(publicKey).slice(0, 16)
}

/**
 * The digest that a person signs: of the record without what happens while signing, so that both signatures
 * stand under one and the same text. Anything else that changes makes a signature stale.
 */
export function signedDigest(record: VisitRecord): string {
  const { signatures: _s, seal: _q, lastSeq: _l, waits: _w, review: _r, unheard: _u, pack, ...rest } = record
  return digestOf({ ...rest, pack: { given: pack.givenDigest } })
}

/** What the plan in a pack is drawn from. */
const drawnKinds = ['storey', 'room', 'wall', 'opening'] as const

/**
 * The digest of what the customer's pack is made from: names and networks, units and where they stand,
 * what was chosen, and which secrets (by reference, never by value).
 */
export function packDigest(record: VisitRecord): string {
  const plain = <T extends { id: string; facts: unknown }>(list: T[]) => list.map(({ id, facts }) => ({ id, facts }))
  const hosts = plain(standing(record.hosts).filter(({ facts }) => facts.unit !== undefined))
  const drawn = drawnKinds.flatMap((kind) => plain(standing(anyThingsOf(record, kind))))
  const looks = Object.values(record.checks ?? {})
    .filter(({ cancelled }) => !cancelled)
    .map(({ from, to }) => ({ from, to }))
  return digestOf({
    brief: record.brief.facts,
    units: plain(standing(record.units)),
    // What was prepared and is not typed in is not printed.
    networks: standing(record.networks).map(({ id, facts: { preparedName: _, ...facts } }) => ({ id, facts })),
    secrets: Object.values(record.secrets)
      .filter(({ prepared }) => !prepared)
      .map(({ ref, purpose, id }) => ({ ref, purpose, id }))
      .sort((a, b) => (a.ref < b.ref ? -1 : 1)),
    choices: Object.fromEntries(Object.entries(record.choices).map(([choice, { answer }]) => [choice, answer])),
    custody: record.custody?.custody ?? null,
    // Which secrets we keep decides which logins are the customer's.
    ...(record.custody?.keeps ? { keeps: record.custody.keeps } : {}),
    // What it prints beside: where the units' pages are, the plan, and when the home is looked at again. Left out where there is none.
    ...(hosts.length ? { hosts } : {}),
    ...(drawn.length ? { drawn } : {}),
    ...(looks.length ? { looks } : {})
  })
}
