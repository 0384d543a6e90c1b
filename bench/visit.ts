import { auditAddresses } from '@pasado/core/address/audit'
import { parseIpv4 } from '@pasado/core/values/ipv4'
import { catalogueOf } from '@pasado/core/catalogue/model'
import type { HouseAction } from '@pasado/core/house/definition'
import { House } from '@pasado/core/house/house'
import { orderGiven, schedule } from '@pasado/core/work/run/schedule'
import { planVisit, type PlannedTask } from '@pasado/core/work/run/visit-plan'
import { demoHouses } from '@pasado/demo/houses'
import { demoModels } from '@pasado/demo/models/all'
import { costOf, planChannels, type ChannelQuestion } from '@pasado/core/radio/channel-plan'
import { medianMs, report } from './timing'

/** Tasks like those of a visit: every second with a wait, most after an earlier one. */
function tasksOf(count: number): PlannedTask[] {
  return Array.from({ length: count }, (_, at) => ({
    id: `t${at}`,
    handsOn: { least: 1, usual: 2 + (at % 3), most: 6 },
    wait: at % 2 ? { least: 1, usual: 3 + (at % 7), most: 20 } : null,
    after: at >= 5 && at % 4 ? [`t${at - 3}`] : []
  }))
}

/** The run plan with its 400 simulated visits, against laying the same tasks out once in the order given; the house in events a second. */
export async function benchVisit(): Promise<void> {
  for (const count of [14, 60]) {
    const tasks = tasksOf(count)
    const plain = tasks.map(({ handsOn, wait, after }) => ({
      handsOnMin: handsOn.usual,
      waitMin: wait?.usual ?? 0,
      after: after.map((id) => tasks.findIndex((task) => task.id === id))
    }))
    const once = await medianMs(9, () => {
      for (let run = 0; run < 400; run++) schedule(plain, orderGiven(plain))
    })
    const ms = await medianMs(5, () => planVisit(tasks))
    const plan = planVisit(tasks)
    const given = schedule(plain, orderGiven(plain))
    const end = Math.max(...plain.map((task, at) => given[at]! + task.handsOnMin + task.waitMin))
    report(
      `run plan, ${count} tasks, with 400 simulated visits`,
      `${ms.toFixed(0)} ms, ${(ms / once).toFixed(1)} × laying them out 400 times; ends ${Math.round(end - plan.makespanMin)} min sooner than the order given`
    )
  }
  const catalogue = catalogueOf(demoModels)
  const [mesh] = demoHouses
  // A wrong adapter starts and falls over again for hours: events without end.
  const definition = {
    ...mesh!,
    faults: [
      { kind: 'wrong-adapter' as const, unit: 'router' },
      { kind: 'wrong-adapter' as const, unit: 'node-1' }
    ]
  }
  let events = 0
  const ms = await medianMs(5, () => {
    const house = new House(definition, catalogue)
    for (const action of [
      { at: 0, do: 'plug', unit: 'router' },
      { at: 1, do: 'plug', unit: 'node-1' }
    ] as HouseAction[])
      house.act(action)
    house.advanceTo(12 * 3600)
    events = house.events.length
  })
  report(
    'simulated house, twelve hours of it',
    `${Math.round((events / ms) * 1000).toLocaleString('en')} events a second (${events} in ${ms.toFixed(0)} ms)`
  )
}

/** The plan of channels for six radios that hear each other among sixty neighbours, against reckoning one plan's cost. */
export async function benchChannels(): Promise<void> {
  const question: ChannelQuestion = {
    country: 'XS',
    radios: Array.from({ length: 6 }, (_, at) => ({
      id: String(at),
      band: '5' as const,
      widthsMHz: [20, 40, 80] as const
    })),
    neighbours: Array.from({ length: 60 }, (_, at) => ({
      band: '5' as const,
      channel: [36, 44, 52, 60, 100, 108, 116, 124, 132][at % 9]!,
      widthMHz: 20 as const,
      dbm: -60 - (at % 30),
      busy: 0.1 + (at % 5) / 10
    })),
    hears: (a, b) => -60 - ((a * 7 + b * 7) % 30)
  }
  const plan = planChannels(question)
  const ms = await medianMs(3, () => planChannels(question))
  const once = await medianMs(9, () => {
    for (let run = 0; run < 100; run++) costOf(question, plan.choices)
  })
  report(
    'channel plan, 6 radios, 60 neighbours',
    `${ms.toFixed(0)} ms, ${Math.round(ms / (once / 100)).toLocaleString('en')} × the cost of one plan; of ${(46 ** 6).toExponential(0)} plans ${plan.proven ? 'proven the best' : `within ${(plan.cost - plan.bound).toFixed(2)} of the best`}`
  )
}

/** The audit of forty segments with two thousand hosts, against reading their addresses alone. */
export async function benchAudit(): Promise<void> {
  const segments = Array.from({ length: 40 }, (_, at) => ({
    id: `s${at}`,
    cidr: `10.${at}.0.0/16`,
    gateway: `10.${at}.0.1`,
    dhcp: [{ device: `server ${at}`, from: `10.${at}.10.0`, to: `10.${at}.19.255` }]
  }))
  const hosts = Array.from({ length: 2000 }, (_, at) => ({
    device: `host ${at}`,
    segment: `s${at % 40}`,
    address: `10.${at % 40}.${(at * 7) % 256}.${(at * 13) % 256}`
  }))
  const found = auditAddresses({ segments, hosts })
  const ms = await medianMs(9, () => auditAddresses({ segments, hosts }))
  const once = await medianMs(9, () => {
    for (let run = 0; run < 100; run++) for (const { address } of hosts) parseIpv4(address)
  })
  report(
    'audit of 40 segments with 2,000 hosts',
    `${ms.toFixed(1)} ms, ${(ms / (once / 100)).toFixed(1)} × reading their addresses; ${found.findings.length} findings, ${found.suggestions.length} suggestions`
  )
}
