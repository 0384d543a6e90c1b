import { createRequire } from 'node:module'
import bwipjs from 'bwip-js/node'
import { createCanvas, GlobalFonts, loadImage, type Canvas, type SKRSContext2D } from '@napi-rs/canvas'
import QRCode from 'qrcode'
import { wifiQr } from '@pasado/core/values/wifi-qr'
import type { LabelValues } from './values'

const require = createRequire(import.meta.url)
for (const [name, family] of [
  ['Label Sans', 'atkinson-hyperlegible-next'],
  ['Label Mono', 'atkinson-hyperlegible-mono']
] as const) {
  for (const weight of [400, 700])
    GlobalFonts.registerFromPath(
      require.resolve(`@fontsource/${family}/files/${family}-latin-${weight}-normal.woff2`),
      name
    )
}

/** The designs of label that the made-up makers print. */
export const labelDesigns = ['card', 'stacked', 'table', 'line', 'moulded', 'plate'] as const
export type LabelDesign = (typeof labelDesigns)[number]

const designOf: Record<string, LabelDesign> = {
  Ostrel: 'card',
  Fenmarrow: 'stacked',
  Brackwater: 'table',
  Quillet: 'line',
  Oldmere: 'moulded',
  Karstine: 'plate',
  Tolvane: 'plate'
}

/** The design that a maker prints. */
export function designFor(maker: string): LabelDesign {
  return designOf[maker] ?? 'plate'
}

const sizes: Record<LabelDesign, [number, number]> = {
  card: [1000, 560],
  stacked: [640, 900],
  table: [1040, 620],
  line: [1080, 420],
  moulded: [900, 520],
  plate: [900, 420]
}

/**
 * Draws the label of a unit, about 16 dots to the millimetre.
 * @returns a canvas with the label and nothing round it
 */
export async function drawLabel(values: LabelValues, design: LabelDesign = designFor(values.maker)): Promise<Canvas> {
  const [width, height] = sizes[design]
  const canvas = createCanvas(width, height)
  const pen = canvas.getContext('2d')
  const dark = design === 'moulded'
  const light = design === 'plate' ? '#dfe0e2' : '#ffffff'
  pen.fillStyle = dark ? '#3a3a3d' : light
  pen.fillRect(0, 0, width, height)
  pen.fillStyle = dark ? '#e9e9e6' : '#161616'
  pen.textBaseline = 'alphabetic'
  await drawings[design](pen, values)
  return canvas
}

const font = (size: number, bold = false, family = 'Label Sans') => `${bold ? 700 : 400} ${size}px "${family}"`

function text(
  pen: SKRSContext2D,
  words: string,
  x: number,
  y: number,
  size: number,
  options: { bold?: boolean; mono?: boolean } = {}
): void {
  pen.font = font(size, options.bold, options.mono ? 'Label Mono' : 'Label Sans')
  pen.fillText(words, x, y)
}

const pairs = (mac: string, joint: string) => mac.toUpperCase().replaceAll(':', joint)

/** What a camera reads to join, or to set the unit up. */
function codeOf({ ssid, key, setupCode, serial, mac, maker }: LabelValues): string | null {
  if (ssid && key) return wifiQr({ ssid, security: 'wpa', passphrase: key }).payload
  return setupCode ? `${maker.toUpperCase()}:SN=${serial};MAC=${pairs(mac, '')};CODE=${setupCode}` : null
}

async function qr(pen: SKRSContext2D, payload: string, x: number, y: number, size: number): Promise<void> {
  pen.drawImage(
    await loadImage(await QRCode.toBuffer(payload, { errorCorrectionLevel: 'M', margin: 4, width: size })),
    x,
    y,
    size,
    size
  )
}

async function bars(
  pen: SKRSContext2D,
  payload: string,
  x: number,
  y: number,
  width: number,
  height: number
): Promise<void> {
  const picture = await loadImage(
    await bwipjs.toBuffer({
      bcid: 'code128',
      text: payload,
      scale: 3,
      height: 9,
      includetext: false,
      paddingwidth: 8,
      backgroundcolor: 'ffffff'
    })
  )
  pen.drawImage(picture, x, y, width, height)
}

const drawings: Record<LabelDesign, (pen: SKRSContext2D, values: LabelValues) => Promise<void>> = {
  /** Code on the left, captions and values in one column beside it. */
  async card(pen, values) {
    const code = codeOf(values)
    if (code) await qr(pen, code, 20, 110, 340)
    text(pen, `${values.maker} ${values.model}`, 30, 74, 46, { bold: true })
    const lines: [string, string | undefined][] = [
      ['Serial number:', values.serial],
      ['MAC address:', pairs(values.mac, ':')],
      ['Network name:', values.ssid],
      ['Network key:', values.key],
      ['Setup code:', values.setupCode]
    ]
    lines
      .filter(([, value]) => value)
      .forEach(([caption, value], at) => {
        text(pen, caption, 390, 150 + at * 78, 28)
        text(pen, value!, 390, 150 + at * 78 + 36, 34, { mono: true, bold: true })
      })
  },
  /** A tall label: small caption over large value, code at the foot. */
  async stacked(pen, values) {
    text(pen, values.maker.toUpperCase(), 40, 70, 40, { bold: true })
    text(pen, `Model ${values.model}`, 40, 116, 30)
    const lines: [string, string | undefined][] = [
      ['S/N', values.serial],
      ['MAC', pairs(values.mac, '-')],
      ['Wi-Fi name', values.ssid],
      ['Wi-Fi password', values.key],
      ['Pairing code', values.setupCode]
    ]
    lines
      .filter(([, value]) => value)
      .forEach(([caption, value], at) => {
        text(pen, caption, 40, 172 + at * 80, 24)
        text(pen, value!, 40, 172 + at * 80 + 40, 38, { mono: true })
      })
    if (values.setupCode)
      await qr(
        pen,
        `${values.maker.toUpperCase()}:SN=${values.serial};MAC=${pairs(values.mac, '')};CODE=${values.setupCode}`,
        190,
        610,
        270
      )
  },
  /** A ruled table with bars for serial and MAC address. */
  async table(pen, values) {
    text(pen, `${values.maker} ${values.model} gateway`, 30, 60, 38, { bold: true })
    const rows: [string, string | undefined][] = [
      ['SSID', values.ssid],
      ['Passphrase', values.key],
      ['Settings page', values.address],
      ['User name', values.user],
      ['Password', values.password]
    ]
    pen.strokeStyle = '#555'
    pen.lineWidth = 2
    rows
      .filter(([, value]) => value)
      .forEach(([caption, value], at) => {
        const y = 84 + at * 56
        pen.strokeRect(30, y, 640, 56)
        text(pen, caption, 44, y + 38, 27)
        text(pen, value!, 270, y + 39, 29, { mono: true, bold: true })
      })
    const code = codeOf(values)
    if (code) await qr(pen, code, 700, 76, 310)
    await bars(pen, values.serial, 30, 400, 470, 120)
    text(pen, `S/N: ${values.serial}`, 46, 556, 29, { mono: true })
    await bars(pen, pairs(values.mac, ''), 530, 400, 480, 120)
    text(pen, `MAC: ${pairs(values.mac, '')}`, 546, 556, 29, { mono: true })
  },
  /** A wall plug's label: small running text, no code. */
  async line(pen, values) {
    text(pen, `${values.maker}  ${values.model}`, 30, 64, 40, { bold: true })
    const lines = [
      `SN: ${values.serial}    MAC: ${pairs(values.mac, ':')}`,
      ...(values.ssid ? [`Wi-Fi name: ${values.ssid}    Wi-Fi key: ${values.key}`] : []),
      ...(values.address ? [`Web page: ${values.address}`] : []),
      ...(values.user ? [`User: ${values.user}    Password: ${values.password}`] : []),
      ...(values.setupCode ? [`Device code: ${values.setupCode}`] : [])
    ]
    lines.forEach((line, at) => text(pen, line, 30, 130 + at * 58, 30, { mono: true }))
  },
  /** Light letters moulded into a dark base; a bar code on a white strip. */
  async moulded(pen, values) {
    text(pen, `${values.maker} ${values.model}`, 40, 74, 44, { bold: true })
    const lines = [
      `Serial No. ${values.serial}`,
      `MAC ID ${pairs(values.mac, '')}`,
      ...(values.ssid ? [`Wireless name ${values.ssid}`, `Wireless key ${values.key}`] : []),
      ...(values.address ? [`Login page ${values.address}`, `User ${values.user}  Password ${values.password}`] : [])
    ]
    lines.forEach((line, at) => text(pen, line, 40, 132 + at * 50, 32))
    pen.fillStyle = '#ffffff'
    await bars(pen, values.serial, 40, 420, 560, 86)
  },
  /** A metal plate: model, serial and MAC address with a code of the setup or of the serial. */
  async plate(pen, values) {
    text(pen, values.maker, 36, 70, 44, { bold: true })
    text(pen, `Type: ${values.model}`, 36, 124, 32)
    text(pen, `Unit no: ${values.serial}`, 36, 190, 34, { mono: true })
    text(pen, `Ethernet address: ${pairs(values.mac, '-')}`, 36, 246, 25, { mono: true })
    if (values.address) text(pen, `Own page: ${values.address}`, 36, 300, 28, { mono: true })
    if (values.user) text(pen, `Login: ${values.user} / ${values.password}`, 36, 350, 28, { mono: true })
    await qr(pen, `SN:${values.serial};MAC:${pairs(values.mac, '')}`, 660, 170, 220)
  }
}
