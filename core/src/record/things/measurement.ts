import { z } from 'zod'
import { bands } from '../../values/band'
import { id, yes } from '../fields'
import { thing } from './thing'
const mbps = z.number().min(0, 'must be 0 or more').max(100_000, 'must be at most 100000 Mbit/s')

const milliseconds = z
  .number()
  .min(0, 'must be 0 or more: a latency is never negative')
  .max(60_000, 'must be at most 60000 ms')

/** One run of a measurement; latency when nothing else runs, and while it is loaded. */
export const measuredRun = z.strictObject({
  downMbps: mbps.optional(),
  upMbps: mbps.optional(),
  idleMs: milliseconds.optional(),
  loadedMs: milliseconds.optional(),
  lossPercent: z.number().min(0, 'must be 0 or more').max(100, 'must be at most 100 %').optional()
})

export type MeasuredRun = z.infer<typeof measuredRun>

export const measuredAt = ['source', 'room', 'port'] as const

/** A measurement: at the source by cable, in a room over the air, or at a wired port of a unit. */
export const measurementFacts = z.strictObject({
  at: z.enum(measuredAt),
  room: id,
  unit: id,
  band: z.enum(bands),
  dbm: z.number().min(-110, 'must be -110 dBm or more').max(-10, 'must be at most -10 dBm: signals are below zero'),
  runs: z.array(measuredRun).min(1, 'must hold at least one run').max(20, 'must hold at most 20 runs'),
  by: z.enum(['phone', 'tablet', 'laptop']),
  how: z.enum(['typed', 'list', 'result-file', 'stand-in', 'simulated-house']),
  /** The first octets of the SHA-256 of the file it came from: the same file is taken once. */
  file: z.string().regex(/^[0-9a-f]{16}$/),
  /** A figure that looked wrong was asked about, and is so. */
  sure: yes
})

export const measurement = thing({
  kind: 'measurement',
  table: 'measurements',
  facts: measurementFacts,
  later: true,
  refersTo: { room: 'room', unit: 'equipment' },
  carriesOver: null,
  compared: 'not',
  label: 'Measurement',
  told: ({ runs, ...rest }) => (Array.isArray(runs) ? { ...rest, runs: runs.length } : rest)
})
