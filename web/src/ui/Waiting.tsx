/** That something is on its way. */
export function Waiting({ says = 'Loading …', className = '' }: { says?: string; className?: string }) {
  return (
    <p role="status" className={`text-soft ${className}`.trim()}>
      {says}
    </p>
  )
}
