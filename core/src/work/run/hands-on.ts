import { hands, type Span } from './span'

/** What hands need, in minutes: seen over and over, and refined by nobody yet. */
export const handsOn = {
  kit: hands(2, 4, 8),
  place: hands(2, 3, 6),
  connect: hands(2, 4, 10),
  step: hands(1, 2, 5),
  update: hands(0.5, 1, 3),
  restart: hands(1, 2, 4),
  addresses: hands(3, 6, 15),
  wifi: hands(3, 5, 12),
  login: hands(1, 2, 5),
  source: hands(2, 3, 6),
  room: hands(1, 2, 4),
  handover: hands(5, 8, 15),
  signoff: hands(3, 5, 10),
  plan: hands(2, 4, 10)
} as const
/** So many times as long. */
export const times = ({ least, usual, most }: Span, count: number): Span =>
  hands(least * count, usual * count, most * count)
