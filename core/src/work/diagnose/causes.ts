/** What can be wrong where something does not work, how often it is, and how it is mended. */
export interface Cause {
  id: string
  name: string
  /** Of a hundred faults met at customers' homes, about how many are this one: this project's estimate, reviewed as a table. */
  baseRate: number
  mend: string
  /** Minutes that mending it takes, proof included. */
  mendMin: number
  /** True where mending costs what was configured: only after everything cheaper. */
  wipes?: boolean
  /** To whom it is handed over where a technician cannot mend it. */
  handOver?: 'provider' | 'maker'
}

/** Every cause, likeliest first. */
export const causes = [
  {
    id: 'backhaul-weak',
    name: 'The hop to it is too weak',
    baseRate: 9,
    mend: 'Move it nearer, or cable it; then test its link again.',
    mendMin: 10
  },
  {
    id: 'too-far',
    name: 'The room is too far from the unit',
    baseRate: 9,
    mend: 'Move the unit nearer to the room, or add one.',
    mendMin: 12
  },
  {
    id: 'bad-wan-cable',
    name: 'The cable from modem to router is bad',
    baseRate: 7,
    mend: 'Put another cable in, and look for the link.',
    mendMin: 3
  },
  {
    id: 'line-down',
    name: 'The line is down',
    baseRate: 6,
    mend: 'Tell the provider, with what was ruled out.',
    mendMin: 15,
    handOver: 'provider'
  },
  {
    id: 'modem-stuck',
    name: 'The modem is stuck',
    baseRate: 6,
    mend: 'Switch it off, all its lights out, ten seconds, on again.',
    mendMin: 6
  },
  {
    id: 'channel-crowded',
    name: 'The channel is crowded',
    baseRate: 6,
    mend: 'Plan the channels again, and set them.',
    mendMin: 8
  },
  {
    id: 'wrong-network',
    name: 'The device is on another network',
    baseRate: 6,
    mend: 'Forget that network on the device, and join ours.',
    mendMin: 2
  },
  {
    id: 'bad-unit-cable',
    name: 'The cable to the unit is bad',
    baseRate: 5,
    mend: 'Swap the cable; if it is in the wall, have it measured.',
    mendMin: 5
  },
  {
    id: 'wrong-port',
    name: 'A cable is in the wrong port',
    baseRate: 5,
    mend: 'Lead the cable to the port its mode asks for.',
    mendMin: 3
  },
  {
    id: 'pairing-missed',
    name: 'The pairing window was missed',
    baseRate: 5,
    mend: 'Press again: first on the router, then within two minutes on the unit.',
    mendMin: 5
  },
  {
    id: 'provider-settings',
    name: 'The provider’s settings are wrong',
    baseRate: 4,
    mend: 'Enter the connection settings anew, letter by letter; else ask the provider.',
    mendMin: 10,
    handOver: 'provider'
  },
  {
    id: 'double-dhcp',
    name: 'Two DHCP servers are on one network',
    baseRate: 4,
    mend: 'Switch the second one off, apply, restart it.',
    mendMin: 6
  },
  {
    id: 'wrong-passphrase',
    name: 'A wrong passphrase is stored',
    baseRate: 4,
    mend: 'Forget the network on it, and enter the passphrase again.',
    mendMin: 4
  },
  {
    id: 'dns',
    name: 'Names are not found (DNS)',
    baseRate: 4,
    mend: 'Set name servers by hand, from the company’s list.',
    mendMin: 4
  },
  {
    id: 'radio-off',
    name: 'Its radio is off',
    baseRate: 3,
    mend: 'Switch Wi-Fi on, on its page or by its button.',
    mendMin: 3
  },
  { id: 'old-firmware', name: 'Its firmware has a fault', baseRate: 3, mend: 'Update it along its path.', mendMin: 12 },
  {
    id: 'nat-clash',
    name: 'Both sides of the router have one range',
    baseRate: 3,
    mend: 'Give the inner network another range, or make the router an access point.',
    mendMin: 10
  },
  {
    id: 'address-clash',
    name: 'Two devices have one address',
    baseRate: 3,
    mend: 'Give one of them a free address.',
    mendMin: 6
  },
  {
    id: 'wrong-adapter',
    name: 'It has another unit’s power adapter',
    baseRate: 3,
    mend: 'Find its own adapter: volts as printed, amps at least.',
    mendMin: 3
  },
  {
    id: 'unit-broken',
    name: 'The unit is broken',
    baseRate: 2,
    mend: 'Swap the unit; return this one to the maker.',
    mendMin: 30,
    handOver: 'maker'
  },
  {
    id: 'family-mismatch',
    name: 'It is of another mesh family',
    baseRate: 2,
    mend: 'Take a unit of the same family.',
    mendMin: 20
  },
  {
    id: 'something-else',
    name: 'Something that is not on this list',
    baseRate: 2,
    mend: 'Factory reset: it costs all that is set on the unit. Note everything first.',
    mendMin: 40,
    wipes: true
  }
] as const satisfies readonly Cause[]
export type CauseId = (typeof causes)[number]['id']

/** A cause by its id. */
export const causeOf = (id: CauseId): Cause => causes.find((cause) => cause.id === id)!
