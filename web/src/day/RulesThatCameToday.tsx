import { Link } from 'react-router'
import { rulesThatCame } from '@pasado/core/rules/check-standard'
import { useRead } from '../app/read'
import { Notice } from '../ui/Notice'

/** What a lead is told on the Day: rules that came with the program are in force once a lead says so. */
export function RulesThatCameToday() {
  const standard = useRead('GET /standards/newest', {}).value?.standard
  const came = standard ? rulesThatCame(standard) : []
  if (came.length === 0) return null
  return (
    <Notice as="p" role="note" edge="plum" className="mt-4">
      {came.length === 1 ? 'A rule came with the program and is' : `${came.length} rules came with the program and are`}{' '}
      not in force yet: <b>{came.map(({ name }) => name).join(', ')}</b>.{' '}
      <Link className="underline" to="/standard">
        See what they say, and put them in force
      </Link>
    </Notice>
  )
}
