/** What can stand on a unit's label. */
export const labelFields = ['model', 'serial', 'mac', 'ssid', 'key', 'setup-code', 'address', 'login'] as const
export type LabelField = (typeof labelFields)[number]

/** Those that are secrets: they go to the vault and nowhere else. */
export const secretLabelFields: ReadonlySet<LabelField> = new Set(['key', 'setup-code', 'login'])

/** What a technician calls each. */
export const labelFieldWords: Record<LabelField, string> = {
  model: 'Model',
  serial: 'Serial',
  mac: 'MAC address',
  ssid: 'Network name',
  key: 'Network key',
  'setup-code': 'Setup code',
  address: 'Own page',
  login: 'Login'
}

/** Ways in which makers print the name of a field; compared without case and signs. */
export const captions: Record<LabelField | 'user' | 'password', readonly string[]> = {
  model: ['model name', 'model number', 'model no', 'product', 'model', 'type', 'm/n'],
  serial: ['serial number', 'serial no', 'device s/n', 'serial', 'ser no', 'unit no', 's/n', 'sn'],
  mac: [
    'mac address',
    'mac addr',
    'mac id',
    'wlan mac',
    'wi-fi mac',
    'wireless mac',
    'ethernet mac',
    'lan mac',
    'hardware address',
    'ethernet address',
    'network id',
    'mac'
  ],
  ssid: [
    'default network name',
    'default ssid',
    'wireless network name',
    'wi-fi network name',
    'wifi network name',
    'network name',
    'wi-fi name',
    'wifi name',
    'wireless name',
    'wireless network',
    'wlan name',
    'network',
    'essid',
    'ssid',
    'wi-fi',
    'wifi'
  ],
  key: [
    'wireless password',
    'wpa2-psk',
    'wpa-psk',
    'wpa3 key',
    'pre-shared key',
    'default wi-fi key',
    'default key',
    'wi-fi password',
    'wifi password',
    'network password',
    'wireless key',
    'network key',
    'security key',
    'wi-fi key',
    'wifi key',
    'wpa key',
    'wlan key',
    'passphrase',
    'wpa2 key',
    'key',
    'psk'
  ],
  'setup-code': [
    'setup code',
    'set-up code',
    'pairing code',
    'joining code',
    'join code',
    'device code',
    'setup',
    'pin',
    'code'
  ],
  address: [
    'settings page',
    'default access',
    'router login',
    'web login',
    'web interface',
    'login url',
    'default ip',
    'ip address',
    'setup at',
    'http',
    'gui',
    'url',
    'own page',
    'web page',
    'web address',
    'admin page',
    'login page',
    'manage at',
    'set up at',
    'access at',
    'settings',
    'address',
    'page',
    'web',
    'ip'
  ],
  login: ['login', 'log in', 'admin login'],
  user: ['user name', 'username', 'login name', 'admin user', 'user', 'admin name'],
  password: [
    'admin password',
    'login password',
    'page password',
    'device password',
    'default password',
    'password',
    'pass',
    'pw'
  ]
}

/** Those that may name something else as well: what stands behind them is never certain. */
export const looseCaptions: ReadonlySet<string> = new Set([
  'type',
  'product',
  'unit no',
  'network id',
  'wlan mac',
  'wi-fi mac',
  'wireless mac',
  'ethernet mac',
  'lan mac',
  'wpa2-psk',
  'wpa-psk',
  'network',
  'wireless network',
  'wi-fi',
  'wifi',
  'key',
  'pin',
  'code',
  'setup',
  'device code',
  'pairing code',
  'settings',
  'address',
  'page',
  'web',
  'ip',
  'manage at',
  'set up at',
  'setup at',
  'access at',
  'default access',
  'router login',
  'web login',
  'web interface',
  'login url',
  'http',
  'gui',
  'url',
  'default key',
  'default password',
  'device password',
  'pw',
  'login name',
  'password',
  'pass',
  'user',
  'login',
  'log in'
])

/** Words before a caption that make it the name of something else: a product key, the PIN of the pairing button. */
export const foreignBefore =
  /\b(?:wps|pbc|push[- ]?button|product|item|part|order|article|sim|puk|licen[cs]e|activation|warranty|support|carton|batch|lot|hw|firmware|software|version)[\s._-]*$/i
