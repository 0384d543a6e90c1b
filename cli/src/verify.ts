import { readFile } from 'node:fs/promises'
import { gunzipSync } from 'node:zlib'
import { text as readAll } from 'node:stream/consumers'
import { integrityProblems, readRecordFile, type RecordFile } from '@pasado/core/documents/record-file'
import { keyName, readSealCode, sealSignatureHolds } from '@pasado/core/record/seal'
import { catalogueOf } from '@pasado/core/catalogue/model'
import type { Entry } from '@pasado/core/record/entry'
import { heldAgainstLines, type Borne } from '@pasado/core/rules/because'
import { parseWords, printProblems, unreadable, UsageError } from './words'

/** The text of a record file; those of an archive are packed. */
async function readRecord(path: string): Promise<string> {
  const octets = await readFile(path)
  return (octets[0] === 0x1f && octets[1] === 0x8b ? gunzipSync(octets) : octets).toString('utf8')
}

/** `pasado verify`: proves that a record file is what was sealed, down to the last octet. */
export async function verify(words: readonly string[]): Promise<number> {
  let text: string
  let key: string | undefined
  try {
    const { rest, values } = parseWords(words, [], ['--key', '--seal'])
    if (values.has('--seal')) return await verifySeal(values.get('--seal')!, values.get('--key'))
    if (rest.length !== 1) throw new UsageError('say which file: pasado verify FILE')
    key = values.get('--key')
    text = await readRecord(rest[0]!)
  } catch (error) {
    return unreadable(error)
  }
  try {
    const file = readRecordFile(text)
    const problems = integrityProblems(file, text)
    if (key !== undefined && file.publicKey !== key.toLowerCase())
      problems.push({
        path: ['publicKey'],
        message: 'is not the key that was given with --key: somebody else sealed this'
      })
    const borne = file.because && problems.length === 0 ? heldAgainst(file) : null
    for (const at of borne?.wrong ?? [])
      problems.push({ path: ['because', at], message: 'are not the lines that this verdict rests on' })
    if (!file.record.seal) problems.push({ path: ['record', 'seal'], message: 'is missing: this visit is not sealed' })
    if (problems.length) {
      printProblems(problems)
      console.error('NOT PROVEN')
      return 1
    }
    const seal = file.record.seal!
    console.log(
      [
        'PROVEN: nothing was changed since it was sealed.',
        file.verdicts === undefined
          ? 'What the rules said is not part of this seal: it is of the kind before verdicts were signed.'
          : `What the rules said is part of this seal: ${file.verdicts.length} verdicts.`,
        ...(borne ? [borneWords(borne)] : []),
        `visit      ${file.visit}`,
        `sealed     ${seal.at} by ${seal.by.name}`,
        `entries    ${file.entries.length}`,
        `standard   ${file.standard.id}, version ${file.standard.version} (${seal.standard})`,
        `catalogue  ${file.models.length} models (${seal.catalogue})`,
        `record     ${seal.record}`,
        `chain      ${seal.chain}`,
        ...(seal.verdicts === undefined ? [] : [`verdicts   ${seal.verdicts}`]),
        `key        ${seal.key} (${file.publicKey})`,
        ...(file.entries.length > seal.seq
          ? [
              `Lines ${seal.seq + 1} to ${file.entries.length} were written after the seal and are not under it${signedWords(file)}.`
            ]
          : []),
        ...(key === undefined
          ? ['The key is the one in the file: compare it with the one the company publishes, or give it with --key.']
          : []),
        ...(file.secrets ? ['The encrypted secrets are not part of the seal; their own check holds.'] : [])
      ].join('\n')
    )
    return 0
  } catch (error) {
    unreadable(error)
    console.error('NOT PROVEN')
    return 2
  }
}

/** The verdicts of a sealed file held against the lines that they rest on. */
function heldAgainst({ entries, record, verdicts = [], because = [], models, standard }: RecordFile): Borne {
  const before = (entries as Entry[]).filter(({ seq }) => seq < record.seal!.seq)
  return heldAgainstLines(before, verdicts, because, catalogueOf(models), standard, record.seal!.at)
}

function borneWords({ borne, saidOtherwise }: Borne): string {
  const otherwise =
    saidOtherwise === 0 ? '' : `; of ${saidOtherwise} more this program says otherwise, by rules of its own`
  return `The lines named for ${borne} verdicts are enough for them${otherwise}.`
}

/** From which line on the server signed for what follows the seal, and by which keys. */
function signedWords({ heads = [] }: RecordFile): string {
  if (heads.length === 0) return '; the server did not sign for them'
  const keys = [...new Set(heads.map(({ key }) => key))].join(', ')
  return `; from line ${heads[0]!.seq} on the server signed for each, with key ${keys}`
}

/** Proves what the code beside a seal says, as it stands on the company's record: that this key signed these digests. `-` reads it from standard input. */
async function verifySeal(text: string, key: string | undefined): Promise<number> {
  if (key === undefined) throw new UsageError('give the company’s public key: pasado verify --seal TEXT --key HEX')
  const code = readSealCode(text === '-' ? await readAll(process.stdin) : text)
  if (!code) throw new UsageError('this is not the code of a seal: scan the square beside the seal again')
  const { visit, seal } = code
  const holds = keyName(key.toLowerCase()) === seal.key && sealSignatureHolds(visit, seal, key.toLowerCase())
  console.log(
    holds
      ? `PROVEN: this key sealed the visit with these digests. Compare them with those of its record.\nvisit      ${visit}\nrecord     ${seal.record}\nchain      ${seal.chain}\nstandard   ${seal.standard}\ncatalogue  ${seal.catalogue}\n${seal.verdicts === undefined ? '' : `verdicts   ${seal.verdicts}\n`}key        ${seal.key}`
      : 'NOT PROVEN: another key sealed this, or the code was altered.'
  )
  return holds ? 0 : 1
}
