import { lookWords, type LampPattern } from '@pasado/core/catalogue/look'

const glass: Record<string, [string, string]> = {
  off: ['#4A4350', '#211D26'],
  white: ['#FFFFFF', '#D9DEE6'],
  blue: ['#6FA3FF', '#1F55D6'],
  cyan: ['#7FE7F7', '#1590AE'],
  green: ['#8BEA9B', '#15803A'],
  amber: ['#FFD566', '#E09A00'],
  orange: ['#FFA45C', '#DB5A0C'],
  red: ['#FF7A70', '#C41E1E'],
  purple: ['#C78BFF', '#6B22B5']
}

/** A lamp lens: a round glass with a bezel that does what the lamp does. Its words stand beside it, wherever it is used. */
export function Lens({ colour, pattern, size = 30 }: { colour: string; pattern: LampPattern; size?: number }) {
  const [first = 'off', second] = pattern === 'off' ? ['off'] : colour.split('/')
  const id = `${first}-${second ?? ''}`
  const disc = (name: string, className: string) => (
    <g className={className}>
      <radialGradient id={`lens-${id}-${name}`} cx="35%" cy="30%" r="75%">
        <stop offset="0%" stopColor={glass[name]?.[0]} />
        <stop offset="100%" stopColor={glass[name]?.[1]} />
      </radialGradient>
      <circle cx="16" cy="16" r="10" fill={`url(#lens-${id}-${name})`} />
    </g>
  )
  return (
    <svg
      role="img"
      aria-label={lookWords({ colour, pattern })}
      viewBox="0 0 32 32"
      width={size}
      height={size}
      className="shrink-0"
    >
      <circle cx="16" cy="16" r="14.5" fill="#211D26" stroke="#8A8093" strokeWidth="1.6" />
      <circle cx="16" cy="16" r="10" fill="#3A3440" />
      {second && disc(second, '')}
      {disc(first, pattern === 'off' || first === 'off' ? '' : `lens-${pattern}`)}
    </svg>
  )
}
