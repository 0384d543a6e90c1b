import type { Condition } from '../catalogue/model'
import { updateWork } from '../catalogue/firmware-work'
import { drawnFrom } from '../work/run/visit-plan'
import type { HouseWorks } from './joining'
import { firstSettings } from './pages'
import { conditionWhenSettled, lineCondition } from './settled'

/** A unit starts: it takes what is stored, and comes to what it is to be. */
export function boot(works: HouseWorks, id: string): void {
  const unit = works.house.units.get(id)!
  unit.running = { ...unit.stored }
  unit.drafts = {}
  unit.stuck = false
  works.turn(id, 'booting')
  works.after(id, works.draw(id, 'booting'), () => {
    const { role } = unit.definition
    if (role === 'modem' || role === 'gateway') seekLine(works, id)
    else {
      works.turn(id, conditionWhenSettled(works.house, id))
      works.ripple()
    }
  })
}

/** A modem or gateway looks for its line, trains it and logs in, as far as its table knows of that. */
export function seekLine(works: HouseWorks, id: string): void {
  const unit = works.house.units.get(id)!
  const has = (condition: Condition) => unit.model.states.some(({ is }) => is === condition)
  const end = () => {
    works.turn(id, lineCondition(works.house, id))
    works.ripple()
  }
  const wait = (condition: Condition, then: () => void) => {
    if (has(condition)) {
      works.turn(id, condition)
      works.after(id, works.draw(id, condition), then)
    } else then()
  }
  wait('line-seeking', () => {
    const found = lineCondition(works.house, id)
    if (found === 'no-line') {
      end()
      return
    }
    wait('line-training', () => {
      if (has('line-login') && unit.configured) wait('line-login', end)
      else end()
    })
  })
}

/** A unit gets power: it starts, or with the wrong adapter starts over and over. */
export function powerUp(works: HouseWorks, id: string): void {
  const unit = works.house.units.get(id)!
  unit.powered = true
  if (unit.rightAdapter && !works.house.fault('broken-unit', id)) boot(works, id)
  else {
    // The wrong adapter, or a broken unit: it starts, and falls over again.
    works.turn(id, 'booting')
    works.after(id, 8, () => {
      works.turn(id, 'off')
      works.after(id, 5, () => {
        if (unit.powered) powerUp(works, id)
      })
    })
  }
}

/** A unit forgets all that was set, and starts. */
export function resetUnit(works: HouseWorks, id: string): void {
  const unit = works.house.units.get(id)!
  unit.configured = false
  unit.uplink = null
  unit.partner = null
  unit.stored = firstSettings(unit.definition, unit.model)
  works.turn(id, 'resetting')
  works.after(id, works.draw(id, 'resetting'), () => boot(works, id))
}

/** A unit installs what leads to a version, and starts; what does not install is said. */
export function updateFirmware(works: HouseWorks, id: string, version: string): void {
  const unit = works.house.units.get(id)!
  const { path } = updateWork(unit.model, unit.firmware)
  if (!path.includes(version)) {
    works.say(id, `${version} does not install from ${unit.firmware}`)
    return
  }
  const steps = path.slice(0, path.indexOf(version) + 1)
  works.turn(id, 'updating')
  const { installMin } = unit.model.firmware
  const usual = installMin?.usual ?? 5
  works.after(
    id,
    steps.length *
      60 *
      drawnFrom({ least: usual * 0.7, usual, most: Math.max(usual, (installMin?.most ?? 8) * 0.9) }, works.random(id)),
    () => {
      unit.firmware = version
      works.say(id, `runs ${version}`)
      boot(works, id)
    }
  )
}
