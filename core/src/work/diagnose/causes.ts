/** What can be wrong where something does not work, how often it is, and how it is mended. */
export interface Cause {
  id: string
  name: string
  /** Of a hundred faults met at customers' homes, about how many are this one: this project's estimate, reviewed as a table. */
  baseRate: number
  remedy: string
  /** Minutes that mending it takes, proof included. */
  remedyMin: number
  /** To whom it is handed over where a technician cannot mend it. */
  handOver?: 'provider' | 'maker'
}

/** Every cause, likeliest first. */
export const causes = [
  {
    id: 'backhaul-weak',
    name: 'The hop to it is too weak',
    baseRate: 9,
    remedy: 'Move it nearer, or cable it; then test its link again.',
    remedyMin: 10
  },
  {
    id: 'too-far',
    name: 'The room is too far from the unit',
    baseRate: 9,
    remedy: 'Move the unit nearer to the room, or add one.',
    remedyMin: 12
  },
  {
    id: 'bad-wan-cable',
    name: 'The cable from modem to router is bad',
    baseRate: 7,
    remedy: 'Put another cable in, and look for the link.',
    remedyMin: 3
  },
  {
    id: 'line-down',
    name: 'The line is down',
    baseRate: 6,
    remedy: 'Tell the provider, with what was ruled out.',
    remedyMin: 15,
    handOver: 'provider'
  },
  {
    id: 'modem-stuck',
    name: 'The modem is stuck',
    baseRate: 6,
    remedy: 'Switch it off, all its lights out, ten seconds, on again.',
    remedyMin: 6
  },
  {
    id: 'channel-crowded',
    name: 'The channel is crowded',
    baseRate: 6,
    remedy: 'Plan the channels again, and set them.',
    remedyMin: 8
  },
  {
    id: 'wrong-network',
    name: 'The device is on another network',
    baseRate: 6,
    remedy: 'Forget that network on the device, and join ours.',
    remedyMin: 2
  },
  {
    id: 'bad-unit-cable',
    name: 'The cable to the unit is bad',
    baseRate: 5,
    remedy: 'Swap the cable; if it is in the wall, have it measured.',
    remedyMin: 5
  },
  {
    id: 'wrong-port',
    name: 'A cable is in the wrong port',
    baseRate: 5,
    remedy: 'Lead the cable to the port its mode asks for.',
    remedyMin: 3
  },
  {
    id: 'pairing-missed',
    name: 'The pairing window was missed',
    baseRate: 5,
    remedy: 'Press again: first on the router, then within two minutes on the unit.',
    remedyMin: 5
  },
  {
    id: 'provider-settings',
    name: 'The provider’s settings are wrong',
    baseRate: 4,
    remedy: 'Enter the connection settings anew, letter by letter; else ask the provider.',
    remedyMin: 10,
    handOver: 'provider'
  },
  {
    id: 'double-dhcp',
    name: 'Two DHCP servers are on one network',
    baseRate: 4,
    remedy: 'Switch the second one off, apply, restart it.',
    remedyMin: 6
  },
  {
    id: 'wrong-passphrase',
    name: 'A wrong passphrase is stored',
    baseRate: 4,
    remedy: 'Forget the network on it, and enter the passphrase again.',
    remedyMin: 4
  },
  {
    id: 'dns',
    name: 'Names are not found (DNS)',
    baseRate: 5,
    remedy: 'Set name servers by hand, from the company’s list.',
    remedyMin: 4
  },
  {
    id: 'radio-off',
    name: 'Its radio is off',
    baseRate: 3,
    remedy: 'Switch Wi-Fi on, on its page or by its button.',
    remedyMin: 3
  },
  {
    id: 'old-firmware',
    name: 'Its firmware has a fault',
    baseRate: 3,
    remedy: 'Update it along its path.',
    remedyMin: 12
  },
  {
    id: 'nat-clash',
    name: 'Both sides of the router have one range',
    baseRate: 3,
    remedy: 'Give the inner network another range, or make the router an access point.',
    remedyMin: 10
  },
  {
    id: 'address-clash',
    name: 'Two devices have one address',
    baseRate: 3,
    remedy: 'Give one of them a free address.',
    remedyMin: 6
  },
  {
    id: 'wrong-adapter',
    name: 'It has another unit’s power adapter',
    baseRate: 3,
    remedy: 'Find its own adapter: volts as printed, amps at least.',
    remedyMin: 3
  },
  {
    id: 'unit-broken',
    name: 'The unit is broken',
    baseRate: 2,
    remedy: 'Swap the unit; return this one to the maker.',
    remedyMin: 30,
    handOver: 'maker'
  },
  {
    id: 'family-mismatch',
    name: 'It is of another mesh family',
    baseRate: 2,
    remedy: 'Take a unit of the same family.',
    remedyMin: 20
  },
  {
    id: 'own-device',
    name: 'The customer’s own device is at fault',
    baseRate: 4,
    remedy: 'Show the customer another device at work there; mend what is set on theirs, or leave it to its maker.',
    remedyMin: 6
  },
  {
    id: 'powerline-weak',
    name: 'The way through the mains is poor',
    baseRate: 3,
    remedy: 'Put both adapters straight into the wall, away from strips and chargers; then look at their rate again.',
    remedyMin: 6
  },
  {
    id: 'repeater-half',
    name: 'It sends on with the radio it hears by',
    baseRate: 3,
    remedy: 'Cable it, or take one with a radio of its own for the way back: half of the speed is what it can do.',
    remedyMin: 12
  },
  {
    id: 'line-slow',
    name: 'The line brings less than is paid for',
    baseRate: 3,
    remedy: 'Tell the provider, with what was measured straight at the modem.',
    remedyMin: 15,
    handOver: 'provider'
  },
  {
    id: 'something-else',
    name: 'Something that is not on this list',
    baseRate: 9,
    remedy: 'Hand it over with what was seen, and ask for help. Nothing is wiped to find out.',
    remedyMin: 5
  }
] as const satisfies readonly Cause[]
export type CauseId = (typeof causes)[number]['id']

/** A cause by its id. */
export const causeOf = (id: CauseId): Cause => causes.find((cause) => cause.id === id)!
