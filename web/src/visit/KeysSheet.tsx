import { Sheet } from '../ui/Sheet'
import { visitKeys } from './keys'

/** The keys of a visit. */
export function KeysSheet({ open, onClose }: { open: boolean; onClose: () => void }) {
  return (
    <Sheet open={open} onClose={onClose} title="Keys" says="They work while you are not typing.">
      <dl className="grid grid-cols-[auto_1fr] gap-x-6 gap-y-2">
        {visitKeys.map(([key, does]) => <div key={key} className="contents"><dt><span className="key">{key}</span></dt><dd>{does}</dd></div>)}
      </dl>
    </Sheet>
  )
}
