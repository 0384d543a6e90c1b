import { everywhereKeys } from '../app/keys'
import { Sheet } from '../ui/Sheet'
import { doingsOf } from '../visit/frame/commands'

const visitKeys: readonly [string, string][] = [
  ['1–9', 'go to a stage'],
  ...doingsOf('', () => undefined).map(({ key, label }): [string, string] => [key, label])
]

/** The keys: those of every view, and in a visit those of a visit. */
export function KeysSheet({ inVisit, onClose }: { inVisit: boolean; onClose: () => void }) {
  return (
    <Sheet open onClose={onClose} title="Keys" description="They work while you are not typing.">
      <dl className="grid grid-cols-[auto_1fr] gap-x-6 gap-y-2">
        {[...(inVisit ? visitKeys : []), ...everywhereKeys].map(([key, does]) => (
          <div key={key} className="contents">
            <dt>
              <span className="key">{key}</span>
            </dt>
            <dd>{does}</dd>
          </div>
        ))}
      </dl>
    </Sheet>
  )
}
