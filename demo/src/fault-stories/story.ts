/** A visit about something that does not work, told from the technician's side: what the home is like, and what whoever looks there sees. */
export interface FaultStory {
  title: string
  home: StoryHome
  /** What is seen where it is not what a sound home gives; whatever else is asked is answered as there, and another device in the same place has the same trouble. */
  sees: Record<string, string>
  /** What is wrong: one cause, two at once, or none of the list. */
  causes: readonly string[]
}

/** What is at a home, as far as it decides what can be looked at: looks that there are not. */
export const storyHomes = {
  /** A modem, a router, and a node that hears it by air. */
  node: ['unit-link', 'swap-unit-cable', 'powerline-rate'],
  /** The same, with the node on a cable. */
  'cabled-node': ['hop-signal', 'shared-radio', 'powerline-rate'],
  /** A modem, a router, and an extender of another make. */
  extender: ['unit-link', 'swap-unit-cable', 'family', 'powerline-rate'],
  /** A gateway, and an access point on a cable. */
  'access-point': [
    'wan-link',
    'swap-wan-cable',
    'wan-address',
    'router-lamp',
    'wifi-router',
    'hop-signal',
    'shared-radio',
    'family',
    'pairing-time',
    'powerline-rate'
  ],
  /** A modem and a router, which the complaint is about. */
  router: [
    'router-lamp',
    'wifi-router',
    'hop-signal',
    'shared-radio',
    'family',
    'pairing-time',
    'unit-link',
    'swap-unit-cable',
    'powerline-rate'
  ],
  /** A gateway and nothing else. */
  gateway: [
    'wan-link',
    'swap-wan-cable',
    'wan-address',
    'router-lamp',
    'wifi-router',
    'unit-lamp',
    'hop-signal',
    'shared-radio',
    'family',
    'pairing-time',
    'unit-link',
    'swap-unit-cable',
    'powerline-rate'
  ],
  /** A modem, a router, and a powerline adapter with Wi-Fi of its own. */
  powerline: ['hop-signal', 'shared-radio', 'family', 'pairing-time', 'unit-link', 'swap-unit-cable']
} as const satisfies Record<string, readonly string[]>
export type StoryHome = keyof typeof storyHomes

/** Nothing comes in: what is seen wherever one looks. */
export const nothingComesIn = {
  others: 'down',
  'wired-router': 'no',
  'wifi-router': 'no',
  'wifi-unit': 'no',
  'ping-number': 'no',
  'name-lookup': 'no'
} as const
