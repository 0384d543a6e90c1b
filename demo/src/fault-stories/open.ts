import { nothingComesIn, type FaultStory } from './story'

/** The half of the stories that the table was read against. */
export const openStories: readonly FaultStory[] = [
  {
    title: 'The dog chewed the lead from the modem',
    home: 'node',
    causes: ['bad-wan-cable'],
    sees: {
      ...nothingComesIn,
      'router-lamp': 'no-internet',
      'unit-lamp': 'no-internet',
      'wan-link': 'none',
      'wan-address': 'none',
      'swap-wan-cable': 'helped',
      'changed-last': 'cables'
    }
  },
  {
    title: 'Eight wires to the attic, four of them whole: 94 where 500 should be',
    home: 'access-point',
    causes: ['bad-unit-cable'],
    sees: { 'unit-link': 'slow', 'wifi-unit': 'slow', 'swap-unit-cable': 'helped' }
  },
  {
    title: 'The printer was given the access point’s address',
    home: 'access-point',
    causes: ['address-clash'],
    sees: { 'duplicate-address': 'yes', 'wifi-unit': 'slow', 'changed-last': 'settings' }
  },
  {
    title: 'Somebody set name servers of a filter that is gone',
    home: 'router',
    causes: ['dns'],
    sees: { others: 'down', 'name-lookup': 'no', 'wired-router': 'no', 'wifi-unit': 'no', 'changed-last': 'settings' }
  },
  {
    title: 'The new phone took the neighbour’s open network',
    home: 'node',
    causes: ['wrong-network'],
    sees: {
      'network-name': 'other',
      address: 'other-range',
      'client-count': 'stays',
      'wifi-unit': 'no',
      'other-device': 'fine',
      rejoin: 'helped'
    }
  },
  {
    title: 'It was dropped on the stairs and stays dark in every socket',
    home: 'node',
    causes: ['unit-broken'],
    sees: {
      'unit-lamp': 'dark',
      'wifi-unit': 'no-network',
      'signal-room': 'weak',
      'client-count': 'stays',
      'ping-number': 'no',
      'name-lookup': 'no',
      'hop-signal': 'none'
    }
  },
  {
    title: 'That version slows down after a day; a restart helps until tomorrow',
    home: 'router',
    causes: ['old-firmware'],
    sees: { others: 'slow', 'wifi-unit': 'slow', firmware: 'old', 'restart-unit': 'helped' }
  },
  {
    title: 'A point from another box, whose set is of another make',
    home: 'node',
    causes: ['family-mismatch'],
    sees: {
      'unit-lamp': 'ready',
      family: 'other',
      'wifi-unit': 'no-network',
      'client-count': 'stays',
      'ping-number': 'no',
      'name-lookup': 'no',
      'signal-room': 'weak',
      'changed-last': 'new-unit'
    }
  },
  {
    title: 'The street is oversold: by cable at the modem a tenth of what is paid for',
    home: 'router',
    causes: ['line-slow'],
    sees: { others: 'slow', 'wired-modem': 'slow', 'wired-router': 'slow', 'wifi-unit': 'slow' }
  },
  {
    title: 'The tablet keeps an address that somebody once typed in',
    home: 'router',
    causes: ['own-device'],
    sees: { 'other-device': 'fine', 'ping-number': 'no', 'name-lookup': 'no', address: 'other-range' }
  },
  {
    title: 'The provider works on the mains box; the gateway seeks its line',
    home: 'gateway',
    causes: ['line-down'],
    sees: {
      others: 'down',
      'line-lamp': 'no-line',
      'wired-router': 'no',
      'wifi-unit': 'no',
      'ping-number': 'no',
      'name-lookup': 'no',
      'wired-modem': 'no'
    }
  },
  {
    title: 'The gateway shows all is well, and lets nothing through until it is switched off',
    home: 'gateway',
    causes: ['modem-stuck'],
    sees: {
      others: 'down',
      'wired-router': 'no',
      'wifi-unit': 'no',
      'ping-number': 'no',
      'name-lookup': 'no',
      'wired-modem': 'no',
      'restart-modem': 'helped'
    }
  },
  {
    title: 'An old router made an access point, cabled by its internet port',
    home: 'access-point',
    causes: ['wrong-port'],
    sees: {
      ports: 'wrong',
      address: 'other-range',
      'unit-lamp': 'no-internet',
      'wifi-unit': 'no',
      'ping-number': 'no',
      'name-lookup': 'no',
      'changed-last': 'new-unit'
    }
  },
  {
    title: 'The crib is at the far end, two bars at best',
    home: 'access-point',
    causes: ['too-far'],
    sees: { 'signal-room': 'weak', 'client-count': 'stays' }
  },
  {
    title: 'The point was taken to the summer house, and hears nothing there',
    home: 'node',
    causes: ['backhaul-weak'],
    sees: {
      'unit-lamp': 'no-link',
      'hop-signal': 'none',
      'wifi-unit': 'no',
      'ping-number': 'no',
      'name-lookup': 'no',
      'changed-last': 'moved'
    }
  },
  {
    title: 'Every evening the study is slow; the baby monitor next door sends all night',
    home: 'node',
    causes: ['channel-crowded'],
    sees: { others: 'slow', 'wifi-router': 'slow', 'wifi-unit': 'slow', 'channel-busy': 'busy' }
  },
  {
    title: 'Two boxes deal addresses, and half of the sets on them are lost',
    home: 'node',
    causes: ['double-dhcp'],
    sees: {
      others: 'down',
      'dhcp-servers': 'two',
      address: 'other-range',
      'wifi-unit': 'no',
      'ping-number': 'no',
      'name-lookup': 'no',
      'changed-last': 'new-unit'
    }
  },
  {
    title: 'The name was kept and the passphrase was not; the node stands outside',
    home: 'node',
    causes: ['wrong-passphrase'],
    sees: {
      'unit-lamp': 'failed',
      'wifi-unit': 'no-network',
      'client-count': 'stays',
      'ping-number': 'no',
      'name-lookup': 'no',
      rejoin: 'helped',
      'changed-last': 'settings'
    }
  },
  {
    title: 'No line, and the cable to the access point is bad as well',
    home: 'access-point',
    causes: ['line-down', 'bad-unit-cable'],
    sees: {
      others: 'down',
      'line-lamp': 'no-line',
      'wired-router': 'no',
      'wired-modem': 'no',
      'unit-lamp': 'no-link',
      'unit-link': 'none',
      'wifi-unit': 'no',
      'ping-number': 'no',
      'name-lookup': 'no',
      address: 'none'
    }
  },
  {
    title: 'A crowded channel, and a laptop that is slow everywhere in the world',
    home: 'router',
    causes: ['own-device', 'channel-crowded'],
    sees: { others: 'slow', 'wifi-unit': 'slow', 'channel-busy': 'busy', 'other-device': 'fine' }
  },
  {
    title: 'The old lead holds all back, and the loft point is too far off besides',
    home: 'node',
    causes: ['bad-wan-cable', 'backhaul-weak'],
    sees: {
      others: 'slow',
      'wired-router': 'slow',
      'wifi-router': 'slow',
      'wifi-unit': 'slow',
      'wan-link': 'slow',
      'unit-lamp': 'weak',
      'hop-signal': 'weak'
    }
  },
  {
    title: 'The extender has the old passphrase, and stands where it hears little',
    home: 'extender',
    causes: ['wrong-passphrase', 'backhaul-weak'],
    sees: {
      'unit-lamp': 'failed',
      'hop-signal': 'weak',
      'wifi-unit': 'no',
      'client-count': 'stays',
      'ping-number': 'no',
      'name-lookup': 'no',
      'changed-last': 'settings'
    }
  },
  {
    title: 'The login is wrong, and the lead went into a LAN port when they tried',
    home: 'router',
    causes: ['provider-settings', 'wrong-port'],
    sees: {
      ...nothingComesIn,
      'line-lamp': 'login',
      ports: 'wrong',
      'unit-lamp': 'no-internet',
      'wired-modem': 'no',
      'wan-address': 'none',
      'changed-last': 'cables'
    }
  },
  {
    title: 'One range on both sides, and the attic is out of reach anyhow',
    home: 'router',
    causes: ['nat-clash', 'too-far'],
    sees: {
      ...nothingComesIn,
      'wan-address': 'same-range',
      'unit-lamp': 'no-internet',
      'signal-room': 'weak',
      'changed-last': 'new-unit'
    }
  },
  {
    title: 'Large packets are lost on the way: pages begin and never end, everywhere',
    home: 'router',
    causes: [],
    sees: { others: 'slow', 'wired-router': 'slow', 'wifi-unit': 'slow' }
  },
  {
    title: 'A cap that somebody set for guests holds everybody to five',
    home: 'node',
    causes: [],
    sees: { others: 'slow', 'wired-router': 'slow', 'wifi-router': 'slow', 'wifi-unit': 'slow' }
  },
  {
    title: 'At noon, while the kitchen warms its soup, the film stops',
    home: 'node',
    causes: [],
    sees: {}
  },
  {
    title: 'A game wants a port that is shut; all else is well',
    home: 'router',
    causes: [],
    sees: {}
  },
  {
    title: 'The cupboard is hot: it restarts at night, and is sound by day',
    home: 'router',
    causes: [],
    sees: {}
  },
  {
    title: 'Half the pages load: those that want the newer kind of address do not',
    home: 'gateway',
    causes: [],
    sees: { others: 'slow', 'wifi-unit': 'slow', 'wired-router': 'slow' }
  }
]
