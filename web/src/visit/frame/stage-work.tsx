import { lazy } from 'react'
import { stages, type Stage } from '@pasado/core/record/stages'

/** The script of each stage, loaded when its stage is first gone to, or before that while nothing else is to be done. */
const scripts: Record<Stage, () => Promise<{ default: () => React.ReactNode }>> = {
  brief: async () => ({ default: (await import('../stages/brief/Brief')).Brief }),
  kit: async () => ({ default: (await import('../stages/kit/Kit')).Kit }),
  place: async () => ({ default: (await import('../stages/place/PlaceStage')).PlaceStage }),
  connect: async () => ({ default: (await import('../stages/connect/Connect')).Connect }),
  start: async () => ({ default: (await import('../stages/start/StartUp')).StartUp }),
  configure: async () => ({ default: (await import('../stages/configure/Configure')).Configure }),
  prove: async () => ({ default: (await import('../stages/prove/Prove')).Prove }),
  handover: async () => ({ default: (await import('../stages/hand-over/HandOver')).HandOver }),
  signoff: async () => ({ default: (await import('../stages/sign-off/SignOff')).SignOff })
}

/** What is done at each stage. */
export const stageWork = Object.fromEntries(stages.map((stage) => [stage, lazy(scripts[stage])])) as Record<
  Stage,
  React.LazyExoticComponent<() => React.ReactNode>
>

const IDLE_MS = 400

/** Loads the scripts of the stages one after another, each while the page has nothing else to do. @returns ends it */
export function loadStagesAhead(): () => void {
  let timer: ReturnType<typeof setTimeout>
  const next = ([stage, ...others]: readonly Stage[]) => {
    if (stage)
      timer = setTimeout(() => {
        // One that does not come now comes when it is gone to, or says then that it does not.
        scripts[stage]().then(
          () => next(others),
          () => next(others)
        )
      }, IDLE_MS)
  }
  next(stages)
  return () => clearTimeout(timer)
}
