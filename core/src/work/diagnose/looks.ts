const yes = { id: 'yes', label: 'yes' }
const no = { id: 'no', label: 'no' }
const lampWords = {
  good: { id: 'good', label: 'good' },
  'no-internet': { id: 'no-internet', label: 'no internet' },
  'no-link': { id: 'no-link', label: 'no link' },
  weak: { id: 'weak', label: 'weak signal' },
  ready: { id: 'ready', label: 'waits to be set up' },
  failed: { id: 'failed', label: 'failed' },
  'radio-off': { id: 'radio-off', label: 'radio off' },
  dark: { id: 'dark', label: 'dark' },
  'starts-over': { id: 'starts-over', label: 'starts over and over' }
}
const speeds = [
  { id: 'yes', label: 'yes, at speed' },
  { id: 'slow', label: 'yes, but slow' },
  { id: 'no', label: 'no' }
] as const
const air = [...speeds, { id: 'no-network', label: 'the network is not there' }] as const
const helped = [
  { id: 'not', label: 'it did not help' },
  { id: 'helped', label: 'it works now' }
] as const

/** Every look, in the fixed order. `the unit` is the one that the complaint is about. */
export const looks = [
  { id: 'restart-unit', asks: 'Restart the unit: does it work then?', answers: helped, minutes: 4 },
  { id: 'restart-modem', asks: 'Restart the modem or gateway: does it work then?', answers: helped, minutes: 6 },
  {
    id: 'line-lamp',
    asks: 'What do the lamps of the modem or gateway say?',
    answers: [
      lampWords.good,
      { id: 'no-line', label: 'no line' },
      { id: 'login', label: 'login refused or waited for' },
      lampWords.dark,
      lampWords['starts-over']
    ],
    minutes: 0.5
  },
  {
    id: 'router-lamp',
    asks: 'What do the router’s lamps say?',
    answers: [
      lampWords.good,
      lampWords['no-internet'],
      lampWords['radio-off'],
      lampWords.dark,
      lampWords['starts-over']
    ],
    minutes: 0.5
  },
  {
    id: 'unit-lamp',
    asks: 'What do the unit’s lamps say?',
    answers: [
      lampWords.good,
      lampWords.weak,
      lampWords['no-link'],
      lampWords.ready,
      lampWords.failed,
      lampWords['no-internet'],
      lampWords['radio-off'],
      lampWords.dark,
      lampWords['starts-over']
    ],
    minutes: 0.7
  },
  {
    id: 'network-name',
    asks: 'Which network is the phone on?',
    answers: [
      { id: 'ours', label: 'ours' },
      { id: 'other', label: 'another' }
    ],
    minutes: 0.3
  },
  {
    id: 'address',
    asks: 'Which address did the phone get?',
    answers: [
      { id: 'right', label: 'one of the home’s range' },
      { id: 'other-range', label: 'of another range' },
      { id: 'none', label: 'none: 169.254…' }
    ],
    minutes: 0.7
  },
  {
    id: 'client-count',
    asks: 'Join the unit: does its client count rise?',
    answers: [
      { id: 'rises', label: 'it rises' },
      { id: 'stays', label: 'it stays' }
    ],
    minutes: 1.5
  },
  {
    id: 'ports',
    asks: 'Is every cable in the port that its mode asks for?',
    answers: [
      { id: 'right', label: 'all right' },
      { id: 'wrong', label: 'one is wrong' }
    ],
    minutes: 1.5
  },
  {
    id: 'wan-link',
    asks: 'What does the link from modem to router show?',
    answers: [
      { id: 'full', label: 'full speed' },
      { id: 'slow', label: 'slow' },
      { id: 'none', label: 'nothing' }
    ],
    minutes: 1
  },
  {
    id: 'unit-link',
    asks: 'What does the link of the cable to the unit show?',
    answers: [
      { id: 'full', label: 'full speed' },
      { id: 'slow', label: 'slow' },
      { id: 'none', label: 'nothing' }
    ],
    minutes: 1
  },
  { id: 'swap-wan-cable', asks: 'Another cable from modem to router: does it work then?', answers: helped, minutes: 3 },
  { id: 'swap-unit-cable', asks: 'Another cable to the unit: does it work then?', answers: helped, minutes: 4 },
  {
    id: 'adapter-label',
    asks: 'Is the unit’s power adapter its own?',
    answers: [
      { id: 'own', label: 'its own' },
      { id: 'other', label: 'another’s' }
    ],
    minutes: 1
  },
  { id: 'wired-router', asks: 'By cable at the router: is there internet?', answers: speeds, minutes: 3 },
  { id: 'wifi-router', asks: 'By Wi-Fi beside the router: is there internet?', answers: air, minutes: 2 },
  { id: 'wifi-unit', asks: 'By Wi-Fi beside the unit: is there internet?', answers: air, minutes: 2 },
  {
    id: 'others',
    asks: 'How is it elsewhere in the home?',
    answers: [
      { id: 'fine', label: 'fine: only here it is not' },
      { id: 'down', label: 'nothing works anywhere' },
      { id: 'slow', label: 'slow everywhere' }
    ],
    minutes: 1
  },
  {
    id: 'rejoin',
    asks: 'Forget the network and join again with the right passphrase: does it work then?',
    answers: helped,
    minutes: 3
  },
  {
    id: 'wired-modem',
    asks: 'By cable straight at the modem or gateway: is there internet?',
    answers: speeds,
    minutes: 4
  },
  {
    id: 'provider-status',
    asks: 'Does the provider know of an outage?',
    answers: [
      { id: 'none', label: 'none known' },
      { id: 'outage', label: 'an outage' }
    ],
    minutes: 6
  },
  {
    id: 'other-device',
    asks: 'Another device in the same place: how is it there?',
    answers: [
      { id: 'fine', label: 'fine' },
      { id: 'same', label: 'just as bad' }
    ],
    minutes: 1
  },
  { id: 'ping-number', asks: 'Does an address outside answer by its number?', answers: [yes, no], minutes: 0.5 },
  { id: 'name-lookup', asks: 'Is a name outside found?', answers: [yes, no], minutes: 0.5 },
  {
    id: 'wan-address',
    asks: 'Which address has the router on its internet side?',
    answers: [
      { id: 'fine', label: 'of another range than inside' },
      { id: 'same-range', label: 'of the same range as inside' },
      { id: 'none', label: 'none' }
    ],
    minutes: 1
  },
  {
    id: 'dhcp-servers',
    asks: 'How many DHCP servers answer?',
    answers: [
      { id: 'one', label: 'one' },
      { id: 'two', label: 'two or more' }
    ],
    minutes: 3
  },
  {
    id: 'duplicate-address',
    asks: 'Does a second device answer at the unit’s address?',
    answers: [no, yes],
    minutes: 2
  },
  {
    id: 'firmware',
    asks: 'Is the unit’s firmware an approved one?',
    answers: [
      { id: 'approved', label: 'approved' },
      { id: 'old', label: 'too old or withdrawn' }
    ],
    minutes: 1
  },
  {
    id: 'hop-signal',
    asks: 'How strong does the unit hear the one before it?',
    answers: [
      { id: 'good', label: 'good' },
      { id: 'weak', label: 'weak' },
      { id: 'none', label: 'not at all' }
    ],
    minutes: 1
  },
  {
    id: 'shared-radio',
    asks: 'With which radio does the unit send on what it hears?',
    answers: [
      { id: 'own', label: 'one of its own' },
      { id: 'shared', label: 'the same' }
    ],
    minutes: 0.5
  },
  {
    id: 'powerline-rate',
    asks: 'What rate do the powerline adapters show?',
    answers: [
      { id: 'good', label: 'more than the room needs' },
      { id: 'poor', label: 'less' },
      { id: 'none', label: 'nothing' }
    ],
    minutes: 1
  },
  {
    id: 'signal-room',
    asks: 'How strong is the signal in the room?',
    answers: [
      { id: 'good', label: '-67 dBm or better' },
      { id: 'weak', label: 'weaker' }
    ],
    minutes: 0.7
  },
  {
    id: 'channel-busy',
    asks: 'How busy is the unit’s channel?',
    answers: [
      { id: 'quiet', label: 'less than half' },
      { id: 'busy', label: 'more than half' }
    ],
    minutes: 2
  },
  {
    id: 'family',
    asks: 'Is the unit of the same mesh family as the router?',
    answers: [
      { id: 'same', label: 'the same' },
      { id: 'other', label: 'another' }
    ],
    minutes: 0.7
  },
  {
    id: 'pairing-time',
    asks: 'Did the second press come within the window?',
    answers: [
      { id: 'in-time', label: 'in time' },
      { id: 'late', label: 'too late, or never' }
    ],
    minutes: 0.5
  },
  {
    id: 'changed-last',
    asks: 'What was changed before it stopped?',
    answers: [
      { id: 'nothing', label: 'nothing' },
      { id: 'moved', label: 'a unit was moved' },
      { id: 'settings', label: 'settings' },
      { id: 'cables', label: 'cables' },
      { id: 'new-unit', label: 'a unit was added' },
      { id: 'power-cut', label: 'a power cut' }
    ],
    minutes: 0.5
  }
] as const
