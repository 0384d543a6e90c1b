/** What each rule is called where there is room for a few words only. */
export const ruleNames: Readonly<Record<string, string>> = {
  'brief-contact': 'Customer and contacts', 'brief-service': 'What comes in', 'brief-method': 'Setup method', 'brief-line-alarm': 'Alarm on the line',
  'kit-complete': 'Box complete', 'kit-adapter': 'Power adapter', 'kit-identity': 'Model, serial and MAC', 'kit-label': 'Label', 'kit-role': 'Role', 'kit-family': 'Mesh family', 'kit-reset': 'Reset of a used unit',
  'place-height': 'Height', 'place-clear': 'In the open', 'place-outlet': 'Outlet within reach', 'place-hops': 'Wireless hops', 'place-count': 'Number of mesh members', 'place-spacing': 'Length of a hop',
  'place-floors': 'Cable between storeys', 'place-outbuilding': 'Cable between buildings', 'place-final': 'Final place',
  'cable-mode': 'Ports by mode', 'cable-modem-restart': 'Modem restarted', 'cable-speed': 'Link speed', 'cable-splitter': 'Sides of the splitter', 'cable-power': 'Powered ports', 'cable-old-kit': 'Old equipment',
  'start-method-window': 'Pairing window', 'start-good-lamp': 'Good lamp', 'start-fresh-lamp': 'Lamp seen since', 'start-in-time': 'State in time', 'start-prompts': 'Consent prompts',
  'addr-one-dhcp': 'One DHCP server', 'addr-valid': 'Address', 'addr-unique': 'Address used once', 'addr-pool': 'Address and pool', 'addr-no-overlap': 'No overlap',
  'addr-single-nat': 'Double NAT', 'addr-ap-mode': 'Access-point mode', 'addr-reachable': 'Page reached', 'addr-applied': 'Pages applied',
  'wifi-name': 'Network name', 'wifi-naming-school': 'Naming school', 'wifi-security': 'Security', 'wifi-passphrase': 'Passphrase', 'wifi-guest': 'Guests apart',
  'wifi-segment': 'Segment', 'wifi-pushbutton-off': 'Pairing button off',
  'radio-channel': 'Channel', 'radio-plan': 'Channels beside each other', 'radio-radar': 'Radar channels',
  'cred-admin': 'Admin password', 'cred-local-admin': 'Admin from inside', 'cred-account': 'Maker’s account', 'cred-no-leak': 'No secret in the logbook',
  'firm-recorded': 'Firmware recorded', 'firm-minimum': 'Firmware approved', 'firm-same': 'Same firmware', 'firm-updates': 'Updates',
  'prove-source': 'Source by cable', 'prove-rooms': 'Room', 'prove-path': 'Proof of path', 'prove-after-move': 'Test after the move', 'prove-wired': 'Wired port', 'prove-names-gone': 'Old names gone',
  'prove-rejoined': 'Devices rejoined', 'prove-voice': 'Telephone', 'prove-settle': 'Check when settled',
  'hand-choices': 'Choices', 'hand-lamp': 'Dark lamp told', 'hand-pack': 'Pack', 'hand-voice-power': 'No calls in a power cut', 'hand-custody': 'Who keeps the secrets', 'hand-cautions': 'Cautions'
}

/** The rules that standards without a list of their own were made for. */
export const firstRules: readonly string[] = [
  'brief-contact', 'brief-service', 'brief-method', 'brief-line-alarm', 'kit-identity', 'kit-label',
  'kit-role', 'kit-family', 'kit-reset', 'place-height', 'place-count', 'place-final',
  'start-good-lamp', 'start-fresh-lamp', 'start-in-time', 'start-prompts', 'addr-one-dhcp', 'addr-valid',
  'addr-unique', 'addr-pool', 'addr-no-overlap', 'addr-single-nat', 'addr-ap-mode', 'addr-reachable',
  'addr-applied', 'wifi-name', 'wifi-naming-school', 'wifi-security', 'wifi-passphrase', 'wifi-guest',
  'wifi-segment', 'wifi-pushbutton-off', 'cred-admin', 'cred-local-admin', 'cred-account', 'cred-no-leak',
  'firm-recorded', 'firm-minimum', 'firm-same', 'firm-updates', 'hand-choices', 'hand-lamp',
  'hand-pack', 'hand-voice-power', 'hand-custody', 'hand-cautions'
]
