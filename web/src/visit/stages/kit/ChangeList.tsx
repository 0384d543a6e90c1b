import type { ModelChange } from '@pasado/core/catalogue/changes'
import { List } from '../../../ui/List'

/** Differences of two versions of a model, one a line. */
export function ChangeList({ changes }: { changes: readonly ModelChange[] }) {
  if (changes.length === 0) return <p>Nothing differs.</p>
  return (
    <List framed>
      {changes.map((change) => (
        <li key={`${change.section} ${change.name} ${change.kind}`} className="py-2">
          <b>
            {change.section}
            {change.name && (
              <>
                {' '}
                · <span className="exact">{change.name}</span>
              </>
            )}
          </b>{' '}
          {change.kind}
          {change.fields.map(({ field, before, after }) => (
            <p key={field} className="text-sm">
              <span className="text-soft">{field}:</span>{' '}
              <span className="exact break-all line-through decoration-1">{before}</span> →{' '}
              <span className="exact break-all">{after}</span>
            </p>
          ))}
        </li>
      ))}
    </List>
  )
}
