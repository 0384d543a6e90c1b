import { screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useEffect, useState } from 'react'
import { beforeEach, expect, it } from 'vitest'
import { placeKey, useArriveAtPlace } from './place'
import { answers } from '../../../test/stage'
import { view } from '../../../test/view'

const user = userEvent.setup()
beforeEach(() => answers.clear())

it('the cursor goes to the place that the address asks for', async () => {
  function Page() {
    useArriveAtPlace()
    return (
      <div data-place={placeKey({ kind: 'unit', id: 'a', field: 'mac' })}>
        <button disabled type="button">
          no
        </button>
        <input aria-label="MAC address" />
      </div>
    )
  }
  view(<Page />, '/visit', '/visit?at=unit.a.mac')
  await waitFor(() => expect(document.activeElement).toBe(screen.getByLabelText('MAC address')))
})

it('the cursor is not taken from somebody who has begun to type elsewhere', async () => {
  function Page() {
    useArriveAtPlace()
    const [there, setThere] = useState(false)
    useEffect(() => {
      const timer = setTimeout(() => setThere(true), 200)
      return () => clearTimeout(timer)
    }, [])
    return (
      <>
        <input aria-label="Serial" />
        {there && <input aria-label="MAC address" data-place="unit.a.mac" />}
      </>
    )
  }
  view(<Page />, '/visit', '/visit?at=unit.a.mac')
  await user.type(screen.getByLabelText('Serial'), 'FL3')
  await screen.findByLabelText('MAC address')
  await new Promise((resolve) => setTimeout(resolve, 200))
  expect(document.activeElement).toBe(screen.getByLabelText('Serial'))
})

/** A place, and what takes the cursor away from it as soon as it has it, as a sheet does that closes late. */
function Robbed() {
  useArriveAtPlace()
  const [isRobbed, setRobbed] = useState(false)
  return (
    <>
      <button type="button">What opened the sheet</button>
      <input
        aria-label="MAC address"
        data-place="unit.a.mac"
        onFocus={() => {
          if (isRobbed) return
          setRobbed(true)
          setTimeout(() => screen.getByRole('button').focus(), 20)
        }}
      />
    </>
  )
}

it('the cursor stays where it arrived when a sheet that closes late gives it back to what opened it', async () => {
  let wasRobbed = false
  const robbed = ({ target }: FocusEvent) => (wasRobbed ||= (target as Element).tagName === 'BUTTON')
  document.addEventListener('focusin', robbed)
  view(<Robbed />, '/visit', '/visit?at=unit.a.mac')
  await waitFor(() => expect(wasRobbed).toBe(true))
  document.removeEventListener('focusin', robbed)
  await waitFor(() => expect(document.activeElement).toBe(screen.getByLabelText('MAC address')))
})

it('whoever presses something is not drawn back to the place', async () => {
  function Page() {
    useArriveAtPlace()
    return (
      <>
        <button type="button">Before it</button>
        <input aria-label="MAC address" data-place="unit.a.mac" />
      </>
    )
  }
  view(<Page />, '/visit', '/visit?at=unit.a.mac')
  await waitFor(() => expect(document.activeElement).toBe(screen.getByLabelText('MAC address')))
  await user.tab({ shift: true })
  await new Promise((resolve) => setTimeout(resolve, 300))
  expect(document.activeElement).toBe(screen.getByRole('button'))
})
