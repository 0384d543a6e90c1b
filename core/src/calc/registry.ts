import { z } from 'zod'
import { auditAddresses } from '../address/audit'
import { auditInput, auditOutput } from '../address/audit-schema'
import { macInput, macOutput, readMac } from '../values/mac'
import { label, labelInput, labelOutput } from '../labels/label'
import { followInput, followLamps, followOutput } from '../catalogue/follow'
import { wifiQr, wifiQrInput, wifiQrOutput } from '../values/wifi-qr'
import { firmwarePath, firmwarePathInput, firmwarePathOutput } from '../catalogue/firmware-path'
import { poeBudget, poeBudgetInput, poeBudgetOutput } from '../work/cabling/poe-budget'
import { channelOverlap, channelOverlapInput, channelOverlapOutput } from '../radio/channels'
import { linkRate, linkRateInput, linkRateOutput } from '../radio/link-rate'
import { pathLoss, pathLossInput, pathLossOutput } from '../radio/path-loss'
import { wallLoss, wallLossInput, wallLossOutput } from '../radio/wall-loss'
import { runPlan, runPlanInput, runPlanOutput } from '../work/run/plan'
import { fault, faultInput, faultOutput } from '../work/diagnose/fault'
import { verdicts, verdictsInput, verdictsOutput } from './verdicts'
import { Refusal, problemsOf } from '../values/problem'

/** A computation that can be called by name. */
export interface Calculation {
  input: z.ZodType
  output: z.ZodType
  run: (input: unknown) => unknown
}

function calculation<I extends z.ZodType, O extends z.ZodType>(
  input: I,
  output: O,
  fn: (input: z.output<I>) => z.output<O>
): Calculation {
  return { input, output, run: (value) => fn(value as z.output<I>) }
}

/** Every computation by its name in the contract. */
export const calculations: Readonly<Record<string, Calculation>> = {
  'address-audit': calculation(auditInput, auditOutput, auditAddresses),
  'channel-overlap': calculation(channelOverlapInput, channelOverlapOutput, channelOverlap),
  fault: calculation(faultInput, faultOutput, fault),
  'firmware-path': calculation(firmwarePathInput, firmwarePathOutput, firmwarePath),
  label: calculation(labelInput, labelOutput, label),
  lamp: calculation(followInput, followOutput, followLamps),
  'link-rate': calculation(linkRateInput, linkRateOutput, linkRate),
  mac: calculation(macInput, macOutput, readMac),
  'path-loss': calculation(pathLossInput, pathLossOutput, pathLoss),
  'poe-budget': calculation(poeBudgetInput, poeBudgetOutput, poeBudget),
  'run-plan': calculation(runPlanInput, runPlanOutput, runPlan),
  verdicts: calculation(verdictsInput, verdictsOutput, verdicts),
  'wall-loss': calculation(wallLossInput, wallLossOutput, wallLoss),
  'wifi-qr': calculation(wifiQrInput, wifiQrOutput, wifiQr)
}

/**
 * Checks an input and computes.
 * @throws Refusal where there is no such computation or the input is not acceptable
 */
export function calculate(name: string, input: unknown): unknown {
  const calc = Object.hasOwn(calculations, name) ? calculations[name]! : null
  if (!calc)
    throw new Refusal([{ path: ['name'], message: `no computation is called ${name}; see pasado calc --list` }])
  const checked = calc.input.safeParse(input, { reportInput: true })
  if (!checked.success) throw new Refusal(problemsOf(checked.error))
  const result = calc.run(checked.data)
  if (!isFinite(result))
    throw new Refusal([{ path: [], message: 'has numbers so large or small that there is no finite result' }])
  return result
}

/** The JSON Schemas (draft 2020-12) of a computation's input and output. */
export function calculationSchemas(name: string): { input: unknown; output: unknown } {
  const calc = calculations[name]!
  return { input: z.toJSONSchema(calc.input, { io: 'input' }), output: z.toJSONSchema(calc.output) }
}

/** Whether every number in a result is finite. */
function isFinite(value: unknown): boolean {
  if (typeof value === 'number') return Number.isFinite(value)
  return typeof value !== 'object' || value === null || Object.values(value).every(isFinite)
}
