import { stageNames, type Stage } from '@pasado/core/record/stages'

const comes: Partial<Record<Stage, string>> = {
  connect: 'The port map, cables, link speeds and the modem’s restart are not recorded in this version.',
  prove: 'Measurements by room, proof of path and the mesh test are not recorded in this version.'
}

/** A stage that is on the strand but holds no work yet, said plainly. */
export function StillToCome({ stage }: { stage: Stage }) {
  return (
    <div className="max-w-xl p-5">
      <h2 className="text-xl">{stageNames[stage]}</h2>
      <p className="mt-2">{comes[stage]}</p>
      <p className="mt-2">No rule of the standard is checked here, and none stands between this stage and sign-off. Do the work as you know it, and write what matters as a note under Brief.</p>
    </div>
  )
}
