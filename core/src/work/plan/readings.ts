import { calibrate, doubtAbout, predictedDbm, type Calibration, type ComparedReading } from '../../radio/calibrate'
import { distanceLoss, pathLoss } from '../../radio/path-loss'
import type { Catalogue } from '../../catalogue/model'
import { standing, thingsOf, type Reading, type VisitRecord } from '../../record/record'
import { HELD_AT_M, obstaclesOf, type HomePlan } from './home-plan'
import { senderOf, type Placed, type PlacedUnit } from './placed'
import type { Band } from '../../values/band'

/** A reading of the record beside the way that the plan gives it. */
export interface PlannedReading {
  reading: Reading
  room: string
  unit: string
  compared: ComparedReading
}

/** The readings of a band whose unit and room stand in the plan: read at the point that is noted or else in the middle of the room, at the height of devices people hold. */
export function plannedReadings(
  record: VisitRecord,
  plan: HomePlan,
  units: readonly PlacedUnit[],
  catalogue: Catalogue,
  band: Band
): PlannedReading[] {
  const { walls, floors } = obstaclesOf(plan, band)
  const floorOf = new Map(plan.storeys.map(({ id, floorM }) => [id, floorM]))
  return standing(thingsOf(record, 'reading')).flatMap((reading): PlannedReading[] => {
    const { room: roomId, unit: unitId, band: on, dbm, x, y } = reading.facts
    const room = plan.rooms.find(({ id }) => id === roomId)
    const unit = units.find(({ id }) => id === unitId)
    const sender = unit && senderOf(unit, catalogue, band)
    if (on !== band || !room || !sender || dbm === undefined) return []
    const to = {
      x: x ?? room.x + room.widthM / 2,
      y: y ?? room.y + room.depthM / 2,
      z: floorOf.get(room.storey)! + HELD_AT_M
    }
    const { distanceM, wallsDb, floorsDb } = pathLoss({
      frequencyMHz: sender.frequencyMHz,
      from: sender,
      to,
      walls,
      floors
    })
    return [
      {
        reading,
        room: room.name,
        unit: unit.name,
        compared: {
          powerDbm: sender.powerDbm,
          readDbm: dbm,
          firstMetreDb: distanceLoss(sender.frequencyMHz, 1, 2),
          tenLogM: 10 * Math.log10(Math.max(1, distanceM)),
          wallsDb,
          floorsDb
        }
      }
    ]
  })
}

/** What reaches a point, from the unit that serves it best, with the working. */
export interface PointSignal {
  unit: string
  dbm: number
  powerDbm: number
  distanceM: number
  distanceDb: number
  wallsDb: number
  wallsCrossed: number
  floorsDb: number
  floorsCrossed: number
}

/** The strongest signal at a point of a storey; null where no unit sends on the band. */
export function signalAt(
  plan: HomePlan,
  units: readonly Placed[],
  catalogue: Catalogue,
  band: Band,
  at: { storey: string; x: number; y: number },
  { exponent, wallFactor }: Pick<Calibration, 'exponent' | 'wallFactor'>
): PointSignal | null {
  const { walls, floors } = obstaclesOf(plan, band, wallFactor)
  const floorM = plan.storeys.find(({ id }) => id === at.storey)?.floorM
  if (floorM === undefined) return null
  return (
    units
      .flatMap((unit): PointSignal[] => {
        const sender = senderOf(unit, catalogue, band)
        if (!sender) return []
        const { totalDb, ...way } = pathLoss({
          frequencyMHz: sender.frequencyMHz,
          from: sender,
          to: { x: at.x, y: at.y, z: floorM + HELD_AT_M },
          exponent,
          walls,
          floors
        })
        return [{ ...way, unit: unit.name, powerDbm: sender.powerDbm, dbm: sender.powerDbm - totalDb }]
      })
      .sort((a, b) => b.dbm - a.dbm)[0] ?? null
  )
}

/**
 * What the readings of a band make of the book, what each was predicted to be by it, and why one is doubtful: each is held
 * against what the others say, so that a wrong one does not vouch for itself.
 */
export function learnFrom(readings: readonly PlannedReading[]): {
  calibration: Calibration
  predicted: number[]
  doubts: (string | null)[]
} {
  const compared = readings.map((reading) => reading.compared)
  const calibration = calibrate(compared)
  return {
    calibration,
    predicted: compared.map((reading) => predictedDbm(reading, calibration)),
    doubts: compared.map((reading) => doubtAbout(reading, calibrate(compared.filter((other) => other !== reading))))
  }
}
