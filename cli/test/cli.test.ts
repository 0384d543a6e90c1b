import { ed25519 } from '@noble/curves/ed25519.js'
import { keyName, sealCode, sealText } from '@pasado/core/record/seal'
import { spawn } from 'node:child_process'
import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Readable } from 'node:stream'
import { gunzipSync } from 'node:zlib'
import { describe, expect, it, vi } from 'vitest'
import { EpochStore } from '@pasado/server/vault/epoch-store'
import { companyKeys } from '@pasado/server/vault/master-key'
import { main } from '../src/main'

const pasado = join(import.meta.dirname, '../bin/pasado.mjs')
const folder = mkdtempSync(join(tmpdir(), 'pasado-cli-'))

/** Runs `pasado` with something on standard input. */
function run(
  words: string[],
  input = '',
  environment: Record<string, string> = {}
): Promise<{ status: number; out: string; err: string }> {
  return new Promise((resolve) => {
    const child = spawn(process.execPath, [pasado, ...words], {
      env: { ...process.env, PASADO_LOGIN: '', PASADO_PASSWORD: '', ...environment }
    })
    let out = ''
    let err = ''
    child.stdout.on('data', (text: Buffer) => {
      out += text.toString()
    })
    child.stderr.on('data', (text: Buffer) => {
      err += text.toString()
    })
    child.once('exit', (status) => resolve({ status: status ?? -1, out, err }))
    child.stdin.end(input)
  })
}

/** Runs a command within this process, where nothing of the process itself is of interest: much sooner than another one. */
async function within(
  words: string[],
  input = '',
  environment: Record<string, string> = {}
): Promise<{ status: number; out: string; err: string }> {
  const [out, err]: [string[], string[]] = [[], []]
  const spies = [
    vi.spyOn(console, 'log').mockImplementation((text: string) => void out.push(text)),
    vi.spyOn(console, 'error').mockImplementation((text: string) => void err.push(text)),
    vi.spyOn(process, 'stdin', 'get').mockReturnValue(Readable.from([input]) as unknown as typeof process.stdin)
  ]
  for (const [name, value] of Object.entries({ PASADO_LOGIN: '', PASADO_PASSWORD: '', ...environment }))
    vi.stubEnv(name, value)
  try {
    return { status: await main(words), out: out.join('\n'), err: err.join('\n') }
  } finally {
    for (const spy of spies) spy.mockRestore()
    vi.unstubAllEnvs()
  }
}

describe('pasado calc', () => {
  it('prints one JSON object', async () => {
    expect(await run(['calc', 'mac'], '{"text":"00-00-5E-00-53-AF"}')).toEqual({
      status: 0,
      out: '{"mac":"00:00:5e:00:53:af","oui":"00:00:5e","locallyAdministered":false,"multicast":false}\n',
      err: ''
    })
  })

  it('refuses with a line for each problem, nothing on standard output, and status 2', async () => {
    const { status, out, err } = await within(
      ['calc', 'wall-loss'],
      '{"material":"cheese","thicknessMm":0,"frequencyMHz":2437,"extra":{"a":1}}'
    )
    expect([status, out]).toEqual([2, ''])
    expect(err.trim().split('\n').sort()).toEqual([
      expect.stringMatching(/^extra: /),
      expect.stringMatching(/^material: must be one of concrete/),
      'thicknessMm: must be above 0'
    ])
  })

  it('with --each answers a line a line, in order, and goes on after a refused one', async () => {
    const { status, out } = await run(
      ['calc', 'mac', '--each'],
      '{"text":"00005E005301"}\n\n{"text":null}\n{"text"\n{"text":"00005E005302"}\n'
    )
    expect(status).toBe(0)
    expect(
      out
        .trim()
        .split('\n')
        .map((line) => JSON.parse(line) as unknown)
    ).toEqual([
      expect.objectContaining({ mac: '00:00:5e:00:53:01' }),
      { refused: ['text: must be text'] },
      { refused: ['input: is not well-formed JSON'] },
      expect.objectContaining({ mac: '00:00:5e:00:53:02' })
    ])
  })

  it('lists its names, and gives the schemas of each', async () => {
    const names = (await within(['calc', '--list'])).out.trim().split('\n')
    expect(names).toEqual([
      'address-audit',
      'channel-overlap',
      'fault',
      'firmware-path',
      'label',
      'lamp',
      'link-rate',
      'mac',
      'path-loss',
      'poe-budget',
      'run-plan',
      'verdicts',
      'wall-loss',
      'wifi-qr'
    ])
    const { out } = await within(['calc', 'path-loss', '--schema'])
    expect(JSON.parse(out)).toMatchObject({
      input: { $schema: 'https://json-schema.org/draft/2020-12/schema', additionalProperties: false },
      output: { type: 'object' }
    })
  })

  it.each([
    [['calc']],
    [['calc', 'nothing']],
    [['calc', 'constructor']],
    [['calc', 'mac', '--loud']],
    [['dance']],
    [[]]
  ])('%j makes no sense: status 2', async (words) => {
    const { status, out, err } = await within(words, '{}')
    expect([status, out]).toEqual([2, ''])
    expect(err).not.toBe('')
  })

  it('a process that was asked for nonsense ends with that status', async () => {
    expect(await run(['dance'])).toMatchObject({ status: 2, out: '', err: expect.stringMatching(/dance/) as string })
  })
})

describe('pasado check, verify, export, import', () => {
  it('say what they want', async () => {
    expect((await within(['check'])).err).toContain('pasado check FILE')
    expect((await within(['verify', 'a', 'b'])).err).toContain('pasado verify FILE')
    expect((await within(['export', 'x'])).err).toContain('PASADO_LOGIN')
    expect((await within(['import', 'x', '--secrets'])).err).toContain('PASADO_PASSPHRASE')
  })

  it('a file that is not there or no record is unreadable', async () => {
    const file = join(folder, 'other.json')
    expect((await within(['check', join(folder, 'none.json')])).status).toBe(2)
    for (const [text, said] of [
      ['{"format":"pasado.record/1"', 'cut short'],
      ['{"format":"pasado.record/7"}', 'is pasado.record/7'],
      ['[]', 'this is no record'],
      ['{"format":"pasado.record/1","visit":7}', 'visit: ']
    ] as const) {
      writeFileSync(file, text)
      const { status, err } = await within(['check', file])
      expect(status).toBe(2)
      expect(err).toContain(said)
    }
  })

  it('a sealed file of before is proven, and says that its verdicts are not under the seal', async () => {
    const file = join(folder, 'before.json')
    writeFileSync(
      file,
      gunzipSync(readFileSync(join(import.meta.dirname, '../../testing/before-outbox/sealed/waivers.json.gz')))
    )
    const { status, out } = await within(['verify', file])
    expect([status, out]).toEqual([0, expect.stringContaining('it is of the kind before verdicts were signed')])
  })

  it('tell where no server answers', async () => {
    const { status, err } = await within(['export', 'x'], '', {
      PASADO_LOGIN: 'a',
      PASADO_PASSWORD: 'b',
      PASADO_URL: 'http://127.0.0.1:9'
    })
    expect(status).toBe(2)
    expect(err).toContain('no server answers at http://127.0.0.1:9')
  })
})

describe('pasado verify --seal', () => {
  // The key is this test's own; the code is what a record's square holds.
  const secret = new Uint8Array(32).fill(7)
  const key = Buffer.from(ed25519.getPublicKey(secret)).toString('hex')
  const digest = 'ab'.repeat(32)
  const parts = { chain: digest, record: digest, standard: digest, catalogue: digest, key: keyName(key) }
  const visit = '0199c000-0000-7000-8000-000000000001'
  const signature = Buffer.from(ed25519.sign(Buffer.from(sealText(visit, parts)), secret)).toString('hex')
  const code = sealCode(visit, { ...parts, signature })

  it('proves what the key signed, from the word or from standard input', async () => {
    const { status, out } = await within(['verify', '--seal', code, '--key', key.toUpperCase()])
    expect([status, out]).toEqual([0, expect.stringMatching(/^PROVEN[\s\S]*0199c000[\s\S]*abab/)])
    expect((await run(['verify', '--seal', '-', '--key', key], code)).status).toBe(0)
  })

  it('not with another digest, another key, or no key; and says what is no code', async () => {
    expect(
      await within(['verify', '--seal', code.replace(digest.toUpperCase(), 'CD'.repeat(32)), '--key', key])
    ).toMatchObject({ status: 1, out: expect.stringContaining('NOT PROVEN') as string })
    expect((await within(['verify', '--seal', code, '--key', '00'.repeat(32)])).status).toBe(1)
    expect(await within(['verify', '--seal', code])).toMatchObject({
      status: 2,
      err: expect.stringContaining('public key') as string
    })
    expect(await within(['verify', '--seal', '{}', '--key', key])).toMatchObject({
      status: 2,
      err: expect.stringContaining('not the code of a seal') as string
    })
  })
})

describe('pasado demo', () => {
  it.each([
    [['demo'], 'say how many'],
    [['demo', '--homes', 'many'], 'whole number'],
    [['demo', '--homes', '0'], 'from 1 to'],
    [['demo', '--houses', '3'], 'no option --houses']
  ])('%j is refused with what to do', async (words, said) => {
    expect(await within(words)).toMatchObject({ status: 2, err: expect.stringContaining(said) as string })
  })
})

describe('pasado keys', () => {
  it('brings epoch keys from one machine to another of the company, and to no other', async () => {
    const machine = (name: string, master: string) => {
      const keyFile = join(folder, name)
      writeFileSync(keyFile, master.repeat(64), { mode: 0o600 })
      return (what: string, input = '') =>
        run(['keys', what], input, { KEY_FILE: keyFile, EPOCH_FILE: `${keyFile}.epochs`, MASTER_KEY: '' })
    }
    const [one, two, another] = [machine('one', 'a'), machine('two', 'a'), machine('another', 'b')]
    new EpochStore(join(folder, 'one.epochs'), companyKeys(Buffer.from('a'.repeat(64), 'hex')).wrap).add()
    const { out } = await one('send')
    expect(await two('take', out)).toMatchObject({ status: 0, out: '1 keys taken over.\n' })
    expect(await two('take', out)).toMatchObject({ status: 0, out: '0 keys taken over.\n' })
    expect(await another('take', out)).toMatchObject({
      status: 2,
      err: expect.stringContaining('another company') as string
    })
    expect(await one('lend')).toMatchObject({
      status: 2,
      err: expect.stringContaining('pasado keys send') as string
    })
  }, 180_000)
})

describe('pasado labels', () => {
  it('draws a label for each demo unit, and a sheet of them', async () => {
    const out = join(folder, 'labels')
    const { status, out: said } = await within(['labels', 'demo', '--out', out])
    const files = readdirSync(out)
    expect([status, said]).toEqual([0, expect.stringContaining(`${files.length - 1} labels and sheet.pdf`)])
    expect(files.filter((name) => name.endsWith('.png')).length).toBeGreaterThan(20)
    expect(readFileSync(join(out, 'sheet.pdf')).subarray(0, 5).toString()).toBe('%PDF-')
    expect(
      new Set(
        files
          .filter((name) => name.endsWith('.png'))
          .map((name) => readFileSync(join(out, name)).subarray(1, 4).toString())
      )
    ).toEqual(new Set(['PNG']))
  }, 60_000)

  it.each([
    [['labels'], 'say which'],
    [['labels', 'demo', '--condition', 'eaten'], 'must be print, clean, worn, bad'],
    [['labels', '019a0000-0000-7000-8000-000000000000'], 'PASADO_LOGIN']
  ])('%j is refused with what to do', async (words, said) => {
    const { status, err } = await within(words)
    expect([status, err]).toEqual([2, expect.stringContaining(said)])
  })
})
