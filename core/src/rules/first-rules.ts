/** The rules that standards without a list of their own were made for: frozen, as sealed visits were judged by them. */
export const firstRules: readonly string[] = `
  brief-contact brief-service brief-method brief-line-alarm
  kit-identity kit-label kit-role kit-family kit-reset
  place-height place-count place-final
  start-good-lamp start-fresh-lamp start-in-time start-prompts
  addr-one-dhcp addr-valid addr-unique addr-pool addr-no-overlap addr-single-nat addr-ap-mode addr-reachable
  addr-applied
  wifi-name wifi-naming-school wifi-security wifi-passphrase wifi-guest wifi-segment wifi-pushbutton-off
  cred-admin cred-local-admin cred-account cred-no-leak
  firm-recorded firm-minimum firm-same firm-updates
  hand-choices hand-lamp hand-pack hand-voice-power hand-custody hand-cautions
`
  .trim()
  .split(/\s+/)
