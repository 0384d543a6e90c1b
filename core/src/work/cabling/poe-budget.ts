import { z } from 'zod'
import { refuse } from '../../values/problem'

/** Power reserved at the source by class 1 to 8, in watts: IEEE 802.3af, at and bt. */
export const classWatts = [4, 7, 15.4, 30, 45, 60, 75, 90] as const

const watts = z.number().min(0, 'must be 0 or more')

/** Input of `poe-budget`: a powered switch with its ports and what hangs on them. */
export const poeBudgetInput = z
  .strictObject({
    budgetW: watts,
    ports: z.array(
      z.strictObject({
        port: z.int().min(1),
        limitW: watts.optional(),
        load: z
          .strictObject({
            device: z.string().min(1),
            class: z.int().min(1, 'must be 1 to 8; enter 3 for class 0').max(8),
            drawW: watts.optional()
          })
          .optional()
      })
    )
  })
  .superRefine(({ ports }, context) => {
    const seen = new Set<number>()
    ports.forEach(({ port }, index) => {
      if (seen.has(port))
        context.addIssue({ code: 'custom', path: ['ports', index, 'port'], message: `port ${port} is listed twice` })
      seen.add(port)
    })
  })
export type PoeBudgetInput = z.infer<typeof poeBudgetInput>

const codes = ['draw-above-class', 'no-poe', 'over-budget', 'over-port-limit'] as const

export const poeBudgetOutput = z.strictObject({
  reservedW: z.number(),
  drawW: z.number(),
  headroomW: z.number(),
  findings: z.array(z.strictObject({ code: z.enum(codes), port: z.number().nullable() }))
})
export type PoeBudget = z.infer<typeof poeBudgetOutput>

/**
 * Adds up what powered ports reserve and draw, against the switch's budget and each port's limit. Equality is never over.
 * @throws Refusal where a sum is not finite
 */
export function poeBudget({ budgetW, ports }: PoeBudgetInput): PoeBudget {
  const findings: PoeBudget['findings'] = []
  let reserved = 0
  let drawn = 0
  for (const { port, limitW, load } of ports) {
    if (!load) continue
    if (limitW === 0) {
      findings.push({ code: 'no-poe', port })
      continue
    }
    const reserves = classWatts[load.class - 1]!
    reserved = tidy(reserved + reserves)
    drawn = tidy(drawn + (load.drawW ?? 0))
    if (limitW !== undefined && reserves > limitW) findings.push({ code: 'over-port-limit', port })
    if (load.drawW !== undefined && load.drawW > reserves) findings.push({ code: 'draw-above-class', port })
  }
  if (!Number.isFinite(drawn)) refuse([{ path: ['ports'], message: 'draw more than can be added up' }])
  if (reserved > budgetW) findings.push({ code: 'over-budget', port: null })
  findings.sort((a, b) => codes.indexOf(a.code) - codes.indexOf(b.code) || (a.port ?? 0) - (b.port ?? 0))
  return { reservedW: reserved, drawW: drawn, headroomW: tidy(budgetW - reserved), findings }
}

/** A sum of watts without the dust of binary fractions: exact to a millionth where that can be said. */
function tidy(sum: number): number {
  return Math.abs(sum) < 1e9 ? Math.round(sum * 1e6) / 1e6 : sum
}
