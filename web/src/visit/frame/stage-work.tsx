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

const loaded = new Map<Stage, React.ComponentType>()

/** Loads the script of a stage. @throws where it does not come */
export async function loadStage(stage: Stage): Promise<React.ComponentType> {
  const work = await scripts[stage]()
  loaded.set(stage, work)
  return work
}

/** What is done at a stage, for a `Suspense` to wait for where its script is not here yet. */
export const stageWork = (stage: Stage): React.ComponentType =>
  // One that is here is there at once, without a moment in which the stage is empty.
  loaded.get(stage) ?? later[stage]

const later = Object.fromEntries(stages.map((stage) => [stage, laterPart(() => loadStage(stage))])) as Record<
  Stage,
  ReturnType<typeof laterPart>
>

const IDLE_MS = 150

/** Loads the scripts of the stages one after another, each while the page has nothing else to do. @returns ends it */
export function loadStagesAhead(): () => void {
  let timer: ReturnType<typeof setTimeout>
  const next = ([stage, ...others]: readonly Stage[]) => {
    if (stage)
      timer = setTimeout(() => {
        // One that does not come now comes when it is gone to, or says then that it does not.
        loadStage(stage).then(
          () => next(others),
          () => next(others)
        )
      }, IDLE_MS)
  }
  next(stages)
  return () => clearTimeout(timer)
}
