import { laterPart } from '../../app/script-part'
import { stages, type Stage } from '@pasado/core/record/stages'

/** The script of each stage, loaded when its stage is first gone to, or before that while nothing else is to be done. */
const scripts: Record<Stage, () => Promise<React.ComponentType>> = {
  brief: async () => (await import('../stages/brief/Brief')).Brief,
  kit: async () => (await import('../stages/kit/Kit')).Kit,
  place: async () => (await import('../stages/place/PlaceStage')).PlaceStage,
  connect: async () => (await import('../stages/connect/Connect')).Connect,
  start: async () => (await import('../stages/start/StartUp')).StartUp,
  configure: async () => (await import('../stages/configure/Configure')).Configure,
  prove: async () => (await import('../stages/prove/Prove')).Prove,
  handover: async () => (await import('../stages/hand-over/HandOver')).HandOver,
  signoff: async () => (await import('../stages/sign-off/SignOff')).SignOff
}

/** What is done at each stage. */
export const stageWork = Object.fromEntries(stages.map((stage) => [stage, laterPart(scripts[stage])])) as Record<
  Stage,
  ReturnType<typeof laterPart>
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
