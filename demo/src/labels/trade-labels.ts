import { createRequire } from 'node:module'
import { createCanvas, GlobalFonts, loadImage, type Canvas, type SKRSContext2D } from '@napi-rs/canvas'
import QRCode from 'qrcode'
import { seededRandom } from '@pasado/core/values/random'
import type { LabelField } from '@pasado/core/labels/fields'

/**
 * Labels as makers of the trade print them, of makers that no catalogue knows: their captions, their layouts and what happens to them on a picture are
 * written here for themselves, apart from the labels of the demo.
 */
const require = createRequire(import.meta.url)
const families = ['atkinson-hyperlegible-next', 'atkinson-hyperlegible-mono'] as const
for (const family of families)
  for (const weight of [400, 700])
    GlobalFonts.registerFromPath(
      require.resolve(`@fontsource/${family}/files/${family}-latin-${weight}-normal.woff2`),
      `trade ${family}`
    )

/** How a label stands on its picture. */
export const settings = ['straight', 'turned', 'curved', 'small', 'dim'] as const
export type Setting = (typeof settings)[number]
/** Those that are ordinary light: the others are told beside. */
export const ordinary: ReadonlySet<Setting> = new Set(['straight', 'turned', 'curved', 'small'])
const layouts = ['lines', 'columns', 'pairs', 'above', 'boxes'] as const

/** A picture of a label, and what stands on it. */
export interface TradeLabel {
  picture: Canvas
  setting: Setting
  layout: (typeof layouts)[number]
  printed: Map<LabelField, string>
}

interface Line {
  caption: string
  value: string
}

const makers = ['Hallowick', 'Sundermoor', 'Pellbright', 'Vantry', 'Corrow', 'Mistleby', 'Draywater', 'Ennerlake']
const kinds = ['Wireless Gateway', 'Dual Band Router', 'Mesh Point', 'Range Extender', 'Access Point', 'Home Hub']
/** What each thing is called, in the words of the trade. */
const words = {
  model: ['Model', 'Model No.', 'Model Name', 'Model:', 'P/N'],
  serial: ['S/N', 'SN', 'Serial No.', 'Serial Number', 'Serial', 'Ser. No.', 'Device S/N'],
  mac: ['MAC', 'MAC Address', 'MAC ID', 'WLAN MAC', 'Ethernet MAC', 'LAN MAC', 'MAC Addr.'],
  ssid: [
    'SSID',
    'Wi-Fi Name',
    'WiFi Name (SSID)',
    'Wireless Network Name',
    'Network Name (SSID)',
    'Default SSID',
    'Default Network Name',
    'Network Name',
    'WLAN Name',
    'ESSID',
    'Wireless Name'
  ],
  key: [
    'Wi-Fi Password',
    'WiFi Key',
    'Wireless Password/PIN',
    'Network Key (WPA)',
    'WPA2 Key',
    'Wireless Key',
    'Network Key',
    'WLAN Key',
    'Passphrase',
    'Wi-Fi Key',
    'Security Key',
    'WPA2-PSK',
    'Default Password',
    'Pre-shared Key'
  ],
  address: [
    'http',
    'Access at',
    'Settings',
    'Default Access',
    'Router Login',
    'Web Login',
    'Login URL',
    'Admin Page',
    'GUI',
    'Default IP',
    'IP Address',
    'Web Interface',
    'Setup at',
    'URL'
  ],
  user: ['User', 'Username', 'User Name', 'Login Name', 'Admin User'],
  password: ['Password', 'Admin Password', 'Login Password', 'PW', 'Device Password']
} as const

type Draw = () => number
const chosen = <T>(random: Draw, list: readonly T[]): T => list[Math.floor(random() * list.length)]!
const of = (random: Draw, alphabet: string, length: number) =>
  Array.from({ length }, () => chosen(random, [...alphabet])).join('')

/** A label by its number, the same one each time. */
export async function tradeLabel(number: number): Promise<TradeLabel> {
  const random = seededRandom(number * 7919 + 17)
  const maker = chosen(random, makers)
  const mac = `00:00:5e:00:53:${of(random, '0123456789abcdef', 2)}`
  const digits = mac.replaceAll(':', '').toUpperCase()
  const printed = new Map<LabelField, string>()
  const lines: Line[] = []
  const put = (field: LabelField, caption: string, value: string, shown = value) => {
    printed.set(field, value)
    lines.push({ caption, value: shown })
  }
  lines.push({
    caption: chosen(random, words.model),
    value: `${maker.slice(0, 2).toUpperCase()}-${of(random, '23456789', 4)}`
  })
  put('serial', chosen(random, words.serial), `${of(random, 'ABCDEFGHJKLMNPRTUVWXY', 2)}${of(random, '23456789', 8)}`)
  const joint = chosen(random, [':', '-', ''])
  put('mac', chosen(random, words.mac), mac, digits.match(/../g)!.join(joint))
  const ssid = `${chosen(random, [`${maker}-`, `${maker}_`, 'HOME-', 'WLAN-'])}${digits.slice(-4)}`
  put('ssid', chosen(random, words.ssid), ssid)
  put(
    'key',
    chosen(random, words.key),
    of(
      random,
      chosen(random, ['abcdefghkmnprstuvwxyz23456789', 'ABCDEFGHKMNPRTUVWXY346789', '23456789']),
      chosen(random, [8, 10, 12, 16])
    )
  )
  const address = chosen(random, [
    '192.168.0.1',
    '192.168.1.1',
    'http://192.168.1.254',
    '10.0.0.1',
    `http://${maker.toLowerCase()}.example`,
    `${maker.toLowerCase()}.example`
  ])
  const hasPage = random() < 0.75
  if (hasPage) put('address', chosen(random, words.address), address)
  if (hasPage && random() < 0.5) {
    const [user, password] = ['admin', of(random, 'abcdefghkmnprstuvwxyz23456789', 8)]
    lines.push(
      { caption: chosen(random, words.user), value: user },
      { caption: chosen(random, words.password), value: password }
    )
    printed.set('login', `${user} / ${password}`)
  }
  const layout = chosen(random, layouts)
  const label = await drawn(random, {
    maker,
    kind: chosen(random, kinds),
    layout,
    lines,
    ssid,
    key: printed.get('key')!
  })
  const setting = settings[number % settings.length]!
  return { picture: pictured(random, label, setting), setting, layout, printed }
}

async function drawn(
  random: Draw,
  {
    maker,
    kind,
    layout,
    lines,
    ssid,
    key
  }: {
    maker: string
    kind: string
    layout: (typeof layouts)[number]
    lines: readonly Line[]
    ssid: string
    key: string
  }
): Promise<Canvas> {
  const family = `"trade ${chosen(random, families)}"`
  const colon = chosen(random, [':', ': ', ' ', ' : '])
  const size = 30
  const code = random() < 0.35 ? 220 : 0
  const high = layout === 'above' ? 84 : 50
  const rows =
    layout === 'pairs' || layout === 'above' || layout === 'boxes' ? Math.ceil(lines.length / 2) : lines.length
  const canvas = createCanvas(1300 + (code && code + 30), 110 + rows * high + 60)
  const pen = canvas.getContext('2d')
  pen.fillStyle = chosen(random, ['#ffffff', '#f4f4f0', '#e6e7e9'])
  pen.fillRect(0, 0, canvas.width, canvas.height)
  pen.fillStyle = '#1a1a1a'
  pen.font = `700 44px ${family}`
  pen.fillText(maker, 40, 66)
  pen.font = `400 26px ${family}`
  pen.fillText(kind, 80 + maker.length * 28, 64)
  const bold = random() < 0.5 ? 700 : 400
  lines.forEach(({ caption, value }, at) => {
    const inTwo = layout === 'pairs' || layout === 'above' || layout === 'boxes'
    const x = 40 + (inTwo && at % 2 ? 650 : 0)
    const y = 130 + (inTwo ? Math.floor(at / 2) : at) * high
    put(pen, { family, size: inTwo ? 24 : size, bold }, layout, { caption, value, colon }, x, y)
  })
  pen.font = `400 18px ${family}`
  pen.fillText('Input 12 V 1.5 A   Designed on the isles   Indoor use only', 40, canvas.height - 24)
  if (code) {
    const text = chosen(random, [
      `WIFI:T:WPA;S:${ssid};P:${key};;`,
      `{"ssid":"${ssid}","key":"${key}"}`,
      `https://help.${maker.toLowerCase()}.example/start`
    ])
    const image = await loadImage(await QRCode.toBuffer(text, { margin: 2, width: code }))
    pen.drawImage(image, canvas.width - code - 25, 100)
  }
  return canvas
}

function put(
  pen: SKRSContext2D,
  { family, size, bold }: { family: string; size: number; bold: number },
  layout: (typeof layouts)[number],
  { caption, value, colon }: Line & { colon: string },
  x: number,
  y: number
): void {
  const plain = () => {
    pen.font = `400 ${size}px ${family}`
  }
  plain()
  if (layout === 'above') {
    pen.font = `400 20px ${family}`
    pen.fillText(caption, x, y)
    pen.font = `${bold} 28px ${family}`
    pen.fillText(value, x, y + 36)
    return
  }
  if (layout === 'columns') {
    pen.fillText(caption, x, y)
    pen.font = `${bold} ${size}px ${family}`
    pen.fillText(value, x + 430, y)
    return
  }
  if (layout === 'boxes') {
    pen.strokeStyle = '#555'
    pen.lineWidth = 2
    pen.strokeRect(x - 12, y - 32, 635, 46)
  }
  const first = `${caption}${colon}`
  pen.fillText(first, x, y)
  const wide = pen.measureText(first).width
  pen.font = `${bold} ${size}px ${family}`
  pen.fillText(value, x + wide + (colon.trim() ? 6 : 10), y)
}

/** Takes the picture: the label on a darker base, all of it in the picture. */
function pictured(random: Draw, label: Canvas, setting: Setting): Canvas {
  const [width, height] = [1600, 1300]
  const picture = createCanvas(width, height)
  const pen = picture.getContext('2d')
  pen.fillStyle = chosen(random, ['#3c3f43', '#54504b', '#6b6f73'])
  pen.fillRect(0, 0, width, height)
  const degrees = setting === 'turned' ? random() * 360 : (random() - 0.5) * 6
  const radians = (degrees * Math.PI) / 180
  const [cos, sin] = [Math.abs(Math.cos(radians)), Math.abs(Math.sin(radians))]
  const fits = Math.min(
    width / (label.width * cos + label.height * sin),
    height / (label.width * sin + label.height * cos)
  )
  const scale = fits * (setting === 'small' ? 0.55 : 0.92)
  pen.translate(width / 2, height / 2)
  pen.rotate(radians)
  pen.scale(scale, scale)
  const bend = setting === 'curved' ? 0.3 + random() * 0.5 : 0
  if (bend === 0) pen.drawImage(label, -label.width / 2, -label.height / 2)
  else
    // On a round base: what is at the sides is turned away, and stands lower.
    for (let strip = 0; strip < label.width; strip += 2) {
      const from = (strip / label.width - 0.5) * 2 * bend
      pen.drawImage(
        label,
        strip,
        0,
        2,
        label.height,
        (Math.sin(from) / Math.sin(bend)) * (label.width / 2),
        -label.height / 2 + (1 - Math.cos(from)) * 120,
        2.4,
        label.height
      )
    }
  pen.resetTransform()
  const light = pen.createLinearGradient(0, 0, width, height)
  const dark = setting === 'dim' ? 0.72 : 0.15
  light.addColorStop(0, `rgba(0,0,0,${dark * 0.6})`)
  light.addColorStop(1, `rgba(0,0,0,${dark})`)
  pen.fillStyle = light
  pen.fillRect(0, 0, width, height)
  const pixels = pen.getImageData(0, 0, width, height)
  const grain = setting === 'dim' ? 16 : 8
  for (let at = 0; at < pixels.data.length; at += 4) {
    const more = (random() - 0.5) * grain
    for (let part = 0; part < 3; part++) pixels.data[at + part]! += more
  }
  pen.putImageData(pixels, 0, 0)
  return picture
}
