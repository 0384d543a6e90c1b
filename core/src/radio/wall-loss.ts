import { z } from 'zod'

/** Permittivity a·f^b and conductivity c·f^d (S/m), f in GHz: ITU-R P.2040-1 (07/2015), table 3; granite is our own estimate. */
export const materials = {
  concrete: { a: 5.31, b: 0, c: 0.0326, d: 0.8095 },
  brick: { a: 3.75, b: 0, c: 0.038, d: 0 },
  plasterboard: { a: 2.94, b: 0, c: 0.0116, d: 0.7076 },
  wood: { a: 1.99, b: 0, c: 0.0047, d: 1.0718 },
  glass: { a: 6.27, b: 0, c: 0.0043, d: 1.1925 },
  'ceiling-board': { a: 1.5, b: 0, c: 0.0005, d: 1.1634 },
  chipboard: { a: 2.58, b: 0, c: 0.0217, d: 0.78 },
  floorboard: { a: 3.66, b: 0, c: 0.0044, d: 1.3515 },
  metal: { a: 1, b: 0, c: 1e7, d: 0 },
  granite: { a: 6, b: 0, c: 0.025, d: 0.6 }
} as const

/** Foil-faced insulation: a constant, whatever its thickness, angle or frequency. */
const FOIL = 'foil-insulation'
const FOIL_DB = 25
export type Material = keyof typeof materials | typeof FOIL
export const materialNames = [...(Object.keys(materials) as (keyof typeof materials)[]), FOIL] as const

const CAP_DB = 120
const LIGHT_M_S = 299_792_458
/** Imaginary part of the permittivity: 17.98·σ/f, f in GHz. */
const SIGMA_FACTOR = 17.98
const AVERAGED_OVER = 21

/** Input of `wall-loss`. */
export const wallLossInput = z
  .strictObject({
    material: z.enum(materialNames),
    thicknessMm: z.number().positive('must be above 0'),
    frequencyMHz: z.number().positive('must be above 0'),
    incidenceDeg: z.number().min(0).lt(90, 'must be below 90').optional(),
    averageOverMHz: z.number().min(0).optional()
  })
  .refine(({ frequencyMHz, averageOverMHz = 0 }) => averageOverMHz < 2 * frequencyMHz, {
    path: ['averageOverMHz'],
    message: 'must be below twice frequencyMHz'
  })
export type WallLossInput = z.infer<typeof wallLossInput>

export const wallLossOutput = z.strictObject({ lossDb: z.number() })

/**
 * Power lost through one slab in air, TE polarisation: ITU-R P.2040-1, equations for a single slab.
 * @returns decibels, at most 120; averaged over a band where `averageOverMHz` is above 0
 */
export function wallLoss({
  material,
  thicknessMm,
  frequencyMHz,
  incidenceDeg = 0,
  averageOverMHz = 0
}: WallLossInput): { lossDb: number } {
  if (material === FOIL) return { lossDb: FOIL_DB }
  const powerAt = (fMHz: number) =>
    squared(transmission(materials[material], thicknessMm / 1000, fMHz, (incidenceDeg * Math.PI) / 180))
  let power = powerAt(frequencyMHz)
  if (averageOverMHz > 0) {
    power = 0
    for (let at = 0; at < AVERAGED_OVER; at++)
      power += powerAt(frequencyMHz - averageOverMHz / 2 + (at * averageOverMHz) / (AVERAGED_OVER - 1)) / AVERAGED_OVER
  }
  return { lossDb: Math.min(CAP_DB, power > 0 ? -10 * Math.log10(power) : CAP_DB) }
}

interface Complex {
  re: number
  im: number
}

const times = (a: Complex, b: Complex): Complex => ({ re: a.re * b.re - a.im * b.im, im: a.re * b.im + a.im * b.re })
const minus = (a: Complex, b: Complex): Complex => ({ re: a.re - b.re, im: a.im - b.im })
const plus = (a: Complex, b: Complex): Complex => ({ re: a.re + b.re, im: a.im + b.im })
const squared = (a: Complex): number => a.re * a.re + a.im * a.im
const unity: Complex = { re: 1, im: 0 }

function over(a: Complex, b: Complex): Complex {
  const size = squared(b)
  return { re: (a.re * b.re + a.im * b.im) / size, im: (a.im * b.re - a.re * b.im) / size }
}

/** The square root with a real part of at least 0. */
function root(a: Complex): Complex {
  const size = Math.hypot(a.re, a.im)
  const re = Math.sqrt((size + a.re) / 2)
  const im = Math.sqrt(Math.max(0, (size - a.re) / 2))
  return { re, im: a.im < 0 ? -im : im }
}

/** e^(−j·q); nothing at all where it is damped beyond what a number holds. */
function damped(q: Complex): Complex {
  const size = Math.exp(q.im)
  return size === 0 ? { re: 0, im: 0 } : { re: size * Math.cos(q.re), im: -size * Math.sin(q.re) }
}

function transmission(
  { a, b, c, d }: { a: number; b: number; c: number; d: number },
  thicknessM: number,
  frequencyMHz: number,
  angle: number
): Complex {
  const fGHz = frequencyMHz / 1000
  const permittivity = { re: a * fGHz ** b, im: (-SIGMA_FACTOR * c * fGHz ** d) / fGHz }
  const s = root(minus(permittivity, { re: Math.sin(angle) ** 2, im: 0 }))
  const wavelengthM = LIGHT_M_S / (frequencyMHz * 1e6)
  const turn = (2 * Math.PI * thicknessM) / wavelengthM
  const q = { re: turn * s.re, im: turn * s.im }
  const cosine = { re: Math.cos(angle), im: 0 }
  const reflection = over(minus(cosine, s), plus(cosine, s))
  const reflectionSquared = times(reflection, reflection)
  const once = damped(q)
  return over(times(minus(unity, reflectionSquared), once), minus(unity, times(reflectionSquared, times(once, once))))
}
