/** One reading beside what the plan says of its way. */
export interface ComparedReading {
  /** What is sent, and what was read, in dBm. */
  powerDbm: number
  readDbm: number
  /** Loss at one metre, in dB; ten times the logarithm of the distance in metres, at least one metre. */
  firstMetreDb: number
  tenLogM: number
  wallsDb: number
  floorsDb: number
}

/** How this home differs from the book: how fast signal falls with distance, and how much its walls take beside the table's. */
export interface Calibration {
  exponent: number
  wallFactor: number
  /** Spread of the readings about the prediction, in dB, before and after. */
  beforeDb: number
  afterDb: number
  /** A prediction is right to about this, in dB (one standard deviation). */
  bandDb: number
}

/** What is held before anything was read: free space, walls as in the table, and how far homes are off that. */
const PRIOR = { exponent: 2, exponentSpread: 0.5, wallFactor: 1, wallSpread: 0.5 }
/** Spread of single readings, and how many readings' worth of faith stands behind it. */
const READ_SPREAD_DB = 6
const FAITH = 3
/** Bounds of homes that can be. */
const [LEAST_EXPONENT, MOST_EXPONENT, LEAST_FACTOR, MOST_FACTOR] = [1.4, 4.5, 0.3, 2.5]

/** What a way loses on the prediction of the book, or of a calibration. */
export function predictedDbm(
  reading: Omit<ComparedReading, 'readDbm'>,
  { exponent, wallFactor }: Pick<Calibration, 'exponent' | 'wallFactor'> = PRIOR
): number {
  return (
    reading.powerDbm -
    reading.firstMetreDb -
    exponent * reading.tenLogM -
    wallFactor * reading.wallsDb -
    reading.floorsDb
  )
}

/**
 * Fits exponent and wall factor to readings by least squares, drawn towards the priors (a Gaussian posterior in two unknowns):
 * a few readings move them a little, many move them as far as they say.
 */
export function calibrate(readings: readonly ComparedReading[]): Calibration {
  // Normal equations of (y − n·a − k·b)²/σ² + (n − n₀)²/σₙ² + (k − k₀)²/σₖ².
  const weight = 1 / READ_SPREAD_DB ** 2
  let [nn, nk, kk] = [1 / PRIOR.exponentSpread ** 2, 0, 1 / PRIOR.wallSpread ** 2]
  let [ny, ky] = [PRIOR.exponent * nn, PRIOR.wallFactor * kk]
  for (const reading of readings) {
    const lost = reading.powerDbm - reading.readDbm - reading.firstMetreDb - reading.floorsDb
    nn += weight * reading.tenLogM ** 2
    nk += weight * reading.tenLogM * reading.wallsDb
    kk += weight * reading.wallsDb ** 2
    ny += weight * reading.tenLogM * lost
    ky += weight * reading.wallsDb * lost
  }
  const whole = nn * kk - nk * nk
  const within = (value: number, least: number, most: number) => Math.min(most, Math.max(least, value))
  const exponent = within((ny * kk - ky * nk) / whole, LEAST_EXPONENT, MOST_EXPONENT)
  const wallFactor = within((ky * nn - ny * nk) / whole, LEAST_FACTOR, MOST_FACTOR)
  const squares = (of: Pick<Calibration, 'exponent' | 'wallFactor'>) =>
    readings.reduce((sum, reading) => sum + (reading.readDbm - predictedDbm(reading, of)) ** 2, 0)
  const spread = (sum: number) => (readings.length ? Math.sqrt(sum / readings.length) : 0)
  const after = squares({ exponent, wallFactor })
  return {
    exponent,
    wallFactor,
    beforeDb: spread(squares(PRIOR)),
    afterDb: spread(after),
    bandDb: Math.sqrt((after + FAITH * READ_SPREAD_DB ** 2) / (readings.length + FAITH))
  }
}

/** A reading is asked about where it is this far from what any home gives. */
const ASKED_ABOUT_DB = 25

/** Why a reading is doubtful, in words; null where it is plausible. */
export function doubtAbout(
  reading: ComparedReading,
  calibration: Pick<Calibration, 'exponent' | 'wallFactor'>
): string | null {
  const off = reading.readDbm - predictedDbm(reading, calibration)
  if (Math.abs(off) < ASKED_ABOUT_DB) return null
  return off > 0
    ? 'much stronger than any wall lets through: another unit, or another room?'
    : 'much weaker than the way explains: another unit, another room, or something large between?'
}
