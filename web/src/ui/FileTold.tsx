import { Notice } from './Notice'

/** What came of a file that was read: what was taken from it, and which of its lines were not. */
export function FileTold({
  told,
  problems,
  className
}: {
  told: string | null
  problems: readonly { line: number; problem: string }[]
  className: string
}) {
  return (
    <>
      {told && (
        <p role="status" className={`font-bold ${className}`}>
          {told}
        </p>
      )}
      {problems.length > 0 && (
        <Notice role="alert" as="ul" edge="ink" className={className}>
          {problems.map(({ line, problem }) => (
            <li key={`${line} ${problem}`}>
              Line {line}: {problem}.
            </li>
          ))}
        </Notice>
      )}
    </>
  )
}
