import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { captions, labelFields } from '@pasado/core/labels/fields'
import { otherReadings, settleByMask, settleHex } from '@pasado/core/labels/look-alikes'
import { fillMask, fitsMask, maskProblem } from '@pasado/core/values/mask'
import { parseLabel } from '@pasado/core/labels/parse'
import type { KnownModel, Reading } from '@pasado/core/labels/reading'
import { joinCode } from '@pasado/core/labels/codes'
import { editDistance } from '@pasado/core/values/edit-distance'
import { wifiQr } from '@pasado/core/values/wifi-qr'

const reed: KnownModel = {
  id: 'quillet-reed',
  maker: 'Quillet',
  name: 'Reed',
  masks: { serial: 'QR99A9999', mac: '00005EHHHHHH', key: 'democccc9999', password: 'demo-aaa999' },
  ssidPrefix: 'Reed_EXT'
}
const heron: KnownModel = {
  id: 'ostrel-heron',
  maker: 'Ostrel',
  name: 'Heron',
  masks: { serial: 'HE9-9999-CCCC', key: 'democccc9999' },
  ssidPrefix: null
}
const plain: KnownModel = { id: 'karstine-sill', maker: 'Karstine', name: 'Sill' }
const print = (text: string, sureness = 0.9): Reading => ({ source: 'print', text, sureness })
const pasted = (text: string): Reading[] =>
  text.split('\n').map((line) => ({ source: 'pasted', text: line, sureness: 1 }))
const qr = (text: string): Reading => ({ source: 'qr', text, sureness: 1 })
const bars = (text: string): Reading => ({ source: 'bars', text, sureness: 1 })
const values = (readings: Reading[], models = [reed]) =>
  Object.fromEntries(parseLabel(readings, models).proposals.map(({ field, value }) => [field, value]))
const trusts = (readings: Reading[], models = [reed]) =>
  Object.fromEntries(parseLabel(readings, models).proposals.map(({ field, trust }) => [field, trust]))

describe('the words of labels', () => {
  it.each([
    [
      'one caption a line',
      'Quillet Reed\nS/N: QR24L6703\nMAC: 00:00:5E:00:53:14\nNetwork name: Reed_EXT5314\nNetwork key: demoacde3479'
    ],
    [
      'captions over their values',
      'Quillet Reed\nSerial number\nQR24L6703\nMAC address\n00-00-5E-00-53-14\nWi-Fi name\nReed_EXT5314\nWi-Fi password\ndemoacde3479'
    ],
    [
      'several on a line',
      'Quillet Reed\nSN: QR24L6703    MAC: 0000.5e00.5314\nSSID: Reed_EXT5314    WPA key: demoacde3479'
    ],
    [
      'a table with a head',
      'Quillet Reed\nSSID    Passphrase\nReed_EXT5314    demoacde3479\nSerial no    MAC\nQR24L6703    00005E005314'
    ],
    [
      'equals signs and no order',
      'PSK=demoacde3479\nMAC=00005e005314\nModel=Reed by Quillet\nSSID=Reed_EXT5314\nSerial=QR24L6703'
    ]
  ])('are understood: %s', (_, text) => {
    expect(values(pasted(text))).toMatchObject({
      model: 'quillet-reed',
      serial: 'QR24L6703',
      mac: '00:00:5e:00:53:14',
      ssid: 'Reed_EXT5314',
      key: 'demoacde3479'
    })
  })

  it('user and password make one login, whatever stands between', () => {
    for (const text of [
      'User: admin    Password: demo-abc123',
      'User admin Password demo-abc123',
      'User name: admin\nPassword: demo-abc123'
    ]) {
      expect(values(pasted(`Key: demoacde3479\n${text}`)).login).toBe('admin / demo-abc123')
    }
  })

  it.each([
    [
      'a serial that the mask does not allow',
      'S/N HE1-4411-ABCD\nModel Heron',
      { serial: 'HE1-4411-ABCD' },
      ['serial']
    ],
    ['look-alikes the other way round', 'S/N HE1-44I1-ACDE\nModel Heron', { serial: 'HE1-44I1-ACDE' }, ['serial']],
    ['a key with letters that the mask leaves out', 'Key demolounbbbcc', { key: 'demolounbbbcc' }, []],
    ['a setup code', 'SETUP DEMO-4471-QWRT', { 'setup-code': 'DEMO-4471-QWRT' }, []],
    ['groups', 'Serial number: KO68 3E45 3484', { serial: 'KO68 3E45 3484' }, ['serial']],
    ['a longer caption', 'Wireless network name: Corvane-26FC', { ssid: 'Corvane-26FC' }, []],
    ['a band before the colon', 'SSID 2.4G/5G: Elver_53F4', { ssid: 'Elver_53F4' }, []],
    ['the kind of security before the colon', 'Network key (WPA): abcd1234efgh', { key: 'abcd1234efgh' }, []],
    ['two captions of one key', 'Wireless Password/PIN: abcd1234efgh', { key: 'abcd1234efgh' }, []]
  ])('pasted text is taken as it stands: %s', (_, text, wanted, doubted) => {
    const { proposals } = parseLabel(pasted(text), [heron], /Heron/.test(text) ? heron : null)
    for (const [field, value] of Object.entries(wanted))
      expect(proposals.find((proposal) => proposal.field === field)?.value).toBe(value)
    for (const { field, value, trust } of proposals)
      if (trust === 'certain') expect(value).toBe((wanted as Record<string, string>)[field])
    for (const field of doubted) expect(trusts(pasted(text), [heron])[field]).toBe('unsure')
  })

  it.each([
    'Network mode: bridge',
    'WPS PIN: 12345670',
    'Product key: AAAA-BBBB-CCCC',
    'Product code: CVH3-EU',
    'MAC: 3C:4D:5E:C7:31:O3',
    'Wi-Fi mode: ac',
    'Web address 192.168.0.1 / Password: zr7kq2mm',
    'Item S/N: 4711'
  ])('nothing certain is said of %s', (text) =>
    expect(
      parseLabel(pasted(text), [])
        .proposals.filter(({ trust }) => trust === 'certain')
        .map(({ field, value }) => [field, value])
    ).toEqual([])
  )

  it('whatever is pasted behind a caption is proposed as it stands, or not at all', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...Object.values(captions).flat()),
        fc.stringMatching(/^[0-9A-Za-z_][0-9A-Za-z.:/-]{3,19}$/),
        fc.constantFrom(': ', '=', ' '),
        (caption, value, joint) => {
          for (const { value: said, trust } of parseLabel(pasted(`${caption}${joint}${value}`), [heron], heron)
            .proposals)
            if (trust === 'certain')
              expect([
                value,
                value
                  .toLowerCase()
                  .match(/[0-9a-f]{2}/g)
                  ?.join(':')
              ]).toContain(said)
        }
      )
    )
  })

  it('a password alone is that of the network', () =>
    expect(values(pasted('SSID: Reed_EXT5314\nPassword: demoacde3479')).key).toBe('demoacde3479'))

  it('the address of its own page is found with and without a caption', () => {
    expect(values(pasted('Settings page: http://192.168.1.240')).address).toBe('http://192.168.1.240')
    expect(values(pasted('see http://reed.example.org to begin')).address).toBe('http://reed.example.org')
    expect(values(pasted('IP 192.168.1.999')).address).toBeUndefined()
  })

  it('what a caption is called besides, in brackets or behind a stroke, is none of the value', () => {
    const read = (text: string) => values([print(text)], [plain])
    expect(read('Network Name (SSID) Vantry-53AF')).toMatchObject({ ssid: 'Vantry-53AF' })
    expect(read('Wireless Password/PIN zewza79u')).toMatchObject({ key: 'zewza79u' })
    expect(read('Network Key (WPA) abcd1234efgh')).toMatchObject({ key: 'abcd1234efgh' })
    expect(read('WLAN Name   HOME - 53AF')).toMatchObject({ ssid: 'HOME-53AF' })
  })

  it('an address begins where it is written, and a figure of power is none', () => {
    const read = (readings: Reading[]) => values(readings, [plain]).address
    expect(read([print('http http://192.168.1.254')])).toBe('http://192.168.1.254')
    expect(read([print('http://192.168.1.254')])).toBe('http://192.168.1.254')
    expect(read([print('Web Login 10.0.0.1'), qr('https://help.vantry.example/start')])).toBe('10.0.0.1')
    expect(read([print('Access at 12 V 1.5 A')])).toBeUndefined()
  })

  it('which of a unit’s MAC addresses it is, no caption of one network tells for certain', () => {
    for (const caption of ['WLAN MAC', 'LAN MAC', 'Ethernet MAC'])
      expect(trusts(pasted(`${caption}: 00:00:5e:00:53:12`), [plain]).mac).toBe('likely')
    expect(trusts(pasted('WPA2-PSK: abcd1234efgh'), [plain]).key).toBe('likely')
  })

  it('every caption names its field', () => {
    for (const field of labelFields) {
      if (field === 'model' || field === 'login') continue
      const value = {
        serial: 'QR24L6703',
        mac: '00:00:5E:00:53:14',
        ssid: 'Reed_EXT5314',
        key: 'demoacde3479',
        'setup-code': 'DEMO-1234-5678',
        address: '192.168.1.240'
      }[field]
      for (const caption of captions[field])
        expect([caption, values(pasted(`${caption}: ${value}`))[field]]).toEqual([
          caption,
          field === 'mac' ? '00:00:5e:00:53:14' : value
        ])
    }
  })
})

describe('the codes of labels', () => {
  it('a join code gives name and key as they are, signs and all', () => {
    fc.assert(
      fc.property(
        fc.string({ minLength: 1, maxLength: 20 }).filter((text) => new TextEncoder().encode(text).length <= 32),
        fc.stringMatching(/^[ -~]{8,63}$/),
        (ssid, passphrase) => {
          expect(joinCode(wifiQr({ ssid, security: 'wpa', passphrase }).payload)).toEqual({ ssid, passphrase })
        }
      )
    )
  })

  it('keyed pairs are certain, a value alone never', () => {
    expect(trusts([qr('QUILLET:SN=QR24L6703;MAC=00005E005314')])).toMatchObject({ serial: 'certain', mac: 'certain' })
    expect(trusts([bars('QR24L6703')])).toEqual({ serial: 'likely' })
    expect(trusts([bars('QR24L6703'), print('S/N: QR24L67O3')])).toMatchObject({ serial: 'likely' })
  })

  it('a code outweighs print that was misread', () => {
    const parsed = parseLabel(
      [qr('SN:QR24L6703;MAC:00005E005314'), print('SN: QR24L6708 MAC: 00:00:5E:00:53:11')],
      [reed]
    )
    expect(parsed.proposals.find(({ field }) => field === 'mac')).toMatchObject({
      value: '00:00:5e:00:53:14',
      trust: 'unsure',
      others: ['00:00:5e:00:53:11']
    })
    // Print that reads as the code does, by look-alikes that the form allows, contradicts nothing.
    expect(parsed.proposals.find(({ field }) => field === 'serial')).toMatchObject({
      value: 'QR24L6703',
      trust: 'certain',
      others: ['QR24L6708']
    })
    expect(parsed.oddities).toEqual([])
  })

  it.each([
    ['NAME is the product', 'NAME:Varnholt Hub U7;SN:VH12345678', { serial: 'VH12345678' }],
    ['the page’s login', 'USER:admin;PASS:zr7kq2mm', {}],
    ['a carton', 'SN=CARTON-77812;QTY=3', {}],
    ['a product and a pairing PIN', 'CODE:CVH3-EU;PIN:12345670', {}],
    ['the maker’s help', 'URL:https://help.corvane.test', {}],
    ['a card of the maker', 'BEGIN:VCARD\nURL:https://corvane.test\nKEY:abcdefgh', {}],
    ['a join code in quotes', 'WIFI:T:WPA;S:"0123ABCD";P:"abcdef0123";;', {}],
    [
      'an easy join',
      'DPP:C:81/1;M:024d5ec73103;I:SN=KO683E453484;K:MDkwEwYHKoZI;;',
      { mac: '02:4d:5e:c7:31:03', serial: 'KO683E453484' }
    ],
    ['an object', '{"sn":"KO683E453484","mac":"024D5EC73103"}', { mac: '02:4d:5e:c7:31:03', serial: 'KO683E453484' }]
  ])('only a key that names just one thing is certain: %s', (_, text, wanted) => {
    expect(
      Object.fromEntries(
        parseLabel([qr(text)], [])
          .proposals.filter(({ trust }) => trust === 'certain')
          .map(({ field, value }) => [field, value])
      )
    ).toEqual(wanted)
  })

  it('a join code’s quotes round hexadecimal digits are none of the name', () =>
    expect(values([qr('WIFI:T:WPA;S:"0123ABCD";P:abcdefgh;;')], [])).toMatchObject({
      ssid: '0123ABCD',
      key: 'abcdefgh'
    }))

  it('two codes that contradict each other are never certain', () => {
    const { proposals, oddities } = parseLabel([qr('MAC=00005E005314'), qr('MAC=00005E005315')], [reed])
    expect(proposals.find(({ field }) => field === 'mac')!.trust).toBe('unsure')
    expect(oddities).toEqual([{ code: 'two-macs', values: ['00:00:5e:00:53:14', '00:00:5e:00:53:15'] }])
  })
})

describe('characters that look alike', () => {
  it('the form of the field decides', () => {
    expect(settleHex('OO:OO:5E:OO:S3:l4')).toEqual({ value: '00005e005314', sure: false })
    expect(settleByMask('OR24L67O3', 'QR99A9999')).toMatchObject({ value: 'QR24L6703' })
    expect(settleByMask('demo-1ph98l', 'demo-aaa999')).toMatchObject({ value: 'demo-lph981' })
    expect(settleByMask('QR24L670', 'QR99A9999')).toBeNull()
  })

  it('where the form leaves both, the other is offered', () => {
    expect(otherReadings('AB0', 'AAX')).toContain('ABO')
    expect(otherReadings('120', '999')).toEqual([])
    expect(parseLabel([print('Serial: K0L5-1')], [plain]).proposals[0]!.others.length).toBeGreaterThan(0)
  })

  it('a network’s name that ends as the MAC address does is put right by it', () => {
    expect(values([print('MAC: 00:00:5E:00:53:1F'), print('SSID: Reed_EXTS31F')])).toMatchObject({
      ssid: 'Reed_EXT531F'
    })
    expect(values([print('MAC: 00:00:5E:00:53:1F'), print('SSID: Reed_EXTS531F')])).toMatchObject({
      ssid: 'Reed_EXT531F'
    })
    expect(values([print('MAC: 00:00:5E:00:53:1F'), print('SSID: Reed_EXT77AA')])).toMatchObject({
      ssid: 'Reed_EXT77AA'
    })
  })

  it('a nought with a stroke that was read as two signs is one', () => {
    expect(values([print('User: admin   Password: demo-vpt0®78'), print('Wi-Fi key: democcdf0®12')])).toMatchObject({
      login: 'admin / demo-vpt078'
    })
  })

  it('a nought that may be an O is for a person to decide, one that the form settles is not', () => {
    const eel: KnownModel = {
      id: 'quillet-eel',
      maker: 'Quillet',
      name: 'Eel',
      masks: { serial: 'QE9999-99A', setupCode: 'DEMO-XXXX-XXXX' }
    }
    expect(trusts([print('Device code: DEMO-064N-S52J', 0.97), print('SN: QE1020-33A', 0.97)], [eel])).toEqual({
      serial: 'likely',
      'setup-code': 'unsure'
    })
  })

  it('print alone is never certain', () => {
    fc.assert(
      fc.property(
        fc.array(fc.string({ maxLength: 40 }), { maxLength: 12 }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (lines, sureness) => {
          expect(
            parseLabel(
              lines.map((line) => print(line, sureness)),
              [reed]
            ).proposals.filter(({ trust }) => trust === 'certain')
          ).toEqual([])
        }
      )
    )
  })

  it('whatever a mask makes, it fits, and is brought back to itself', () => {
    const masks = ['QR99A9999', '00005EHHHHHH', 'democccc9999', 'AA9-9999-CCCC', 'DEMO-XXXX-xxxx', '\\A\\9-9A']
    fc.assert(
      fc.property(fc.constantFrom(...masks), fc.infiniteStream(fc.nat()), (mask, numbers) => {
        const value = fillMask(mask, (below) => numbers.next().value! % below)
        expect(fitsMask(mask, value)).toBe(true)
        expect(settleByMask(value, mask)?.value).toBe(value)
      })
    )
    expect(masks.map(maskProblem)).toEqual(masks.map(() => null))
    expect([maskProblem('A\\'), maskProblem('A 9')]).toEqual([expect.any(String), expect.any(String)])
  })

  it('the distance of texts', () => {
    expect([editDistance('', 'abc'), editDistance('serial', 'serlal'), editDistance('a', 'a')]).toEqual([3, 1, 0])
  })
})

describe('any label', () => {
  const label = fc.record({
    serial: fc
      .constant(0)
      .chain(() =>
        fc.infiniteStream(fc.nat()).map((numbers) => fillMask('QR99A9999', (below) => numbers.next().value! % below))
      ),
    mac: fc.integer({ min: 1, max: 0xfffffe }).map((tail) => `00005e${tail.toString(16).padStart(6, '0')}`),
    key: fc
      .infiniteStream(fc.nat())
      .map((numbers) => fillMask('democccc9999', (below) => numbers.next().value! % below)),
    octet: fc.stringMatching(/^[0-9A-F]{4}$/)
  })
  const separators = fc.constantFrom(': ', ' ', '=', ':', '  ', ' : ')
  const joints = fc.constantFrom(':', '-', '')
  const noise = fc.array(
    fc.constantFrom('Made on the Skerrow Isles', '12 V 2 A', '| ~', 'CE', 'Recycle me', 'v2', ''),
    { maxLength: 4 }
  )

  it('is read in any order, with any separators, amid noise', () => {
    fc.assert(
      fc.property(
        label,
        separators,
        joints,
        noise,
        fc.infiniteStream(fc.nat()),
        ({ serial, mac, key, octet }, separator, joint, rubbish, numbers) => {
          const pick = <T>(list: readonly T[]) => list[numbers.next().value! % list.length]!
          const pairs = mac.toUpperCase().match(/../g)!.join(joint)
          const lines = [
            'Quillet Reed',
            `${pick(captions.serial)}${separator}${serial}`,
            `${pick(captions.mac)}${separator}${pairs}`,
            `${pick(captions.key)}${separator}${key}`,
            `${pick(captions.ssid)}${separator}Reed_EXT${octet}`,
            ...rubbish
          ]
          const mixed = lines
            .map((line) => [numbers.next().value!, line] as const)
            .sort((a, b) => a[0] - b[0])
            .map(([, line]) => line)
          expect(values(pasted(mixed.join('\n')))).toMatchObject({
            model: 'quillet-reed',
            serial,
            mac: mac.match(/../g)!.join(':'),
            key,
            ssid: `Reed_EXT${octet}`
          })
        }
      ),
      { numRuns: 300 }
    )
  })

  it('never throws and gives each field once, whatever it is given', () => {
    const reading = fc.record({
      source: fc.constantFrom('qr', 'bars', 'print', 'pasted'),
      text: fc.string({ maxLength: 80 }),
      sureness: fc.double({ min: 0, max: 1, noNaN: true })
    }) as fc.Arbitrary<Reading>
    fc.assert(
      fc.property(fc.array(reading, { maxLength: 15 }), (readings) => {
        const { proposals, oddities } = parseLabel(readings, [reed, plain])
        expect(new Set(proposals.map(({ field }) => field)).size).toBe(proposals.length)
        if (proposals.every(({ field }) => field === 'model'))
          expect(oddities.map(({ code }) => code)).toContain('nothing-found')
      })
    )
  })
})

describe('labels that do not fit', () => {
  it('two MAC addresses are told', () => {
    expect(parseLabel(pasted('WAN MAC: 00:00:5E:00:53:14\nLAN MAC: 00:00:5E:00:53:15'), [reed]).oddities).toMatchObject(
      [{ code: 'two-macs' }]
    )
  })

  it('the label of another model is told', () => {
    expect(parseLabel(pasted('Karstine\nModel: Sill\nSN: KS-11-220033'), [reed]).oddities).toMatchObject([
      { code: 'another-model' }
    ])
    expect(parseLabel(pasted('Model: Reed\nSN: QR24L6703'), [reed]).oddities).toEqual([])
  })

  it('one with nothing on it says so', () =>
    expect(parseLabel([print('~~ ##')], [reed]).oddities).toEqual([{ code: 'nothing-found' }]))
})
