import { type HouseDefinition, houseFileProblem } from '@pasado/core/house/definition'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { v7 as uuidv7 } from 'uuid'
import { ask, failureTitle } from '../app/api'
import { Button } from '../ui/Button'
import { FileButton } from '../ui/FileButton'
import { useRead } from '../app/read'
import { Heading, Page } from '../ui/Page'
import { List } from '../ui/List'

/** Practice: houses to try a procedure in, and the ones that were begun. */
export function Practice() {
  const read = useRead('GET /houses', {}, { otherwise: 'The server is not in reach; try again.' })
  const houses = read.value?.houses
  const [refused, setProblem] = useState<string | null>(null)
  const navigate = useNavigate()
  const failed = (error: unknown) => setProblem(failureTitle(error, 'The server is not in reach; try again.'))
  const problem = refused ?? read.problem
  const begin = async (house: { definition: HouseDefinition } | { from: string }) => {
    const id = uuidv7()
    try {
      await ask('POST /houses', { body: { id, ...house } })
      await navigate(`/practice/${id}`)
    } catch (error) {
      failed(error)
    }
  }
  const fromFile = async (file: File) => {
    let value: unknown
    try {
      value = JSON.parse(await file.text())
    } catch {
      setProblem(`${file.name} is not JSON: choose a file of a house.`)
      return
    }
    const wrong = houseFileProblem(value)
    if (wrong) {
      setProblem(`${file.name} was not taken. ${wrong}.`)
      return
    }
    // A house by itself, or one with what was done in it.
    const house = value as HouseDefinition & { definition?: HouseDefinition }
    await begin({ definition: house.definition ?? house })
  }
  const own = houses?.filter(({ template }) => !template) ?? []
  return (
    <Page title="Practice" width="list">
      <Heading>Practice</Heading>
      <p className="mt-1 max-w-2xl">
        Simulated houses with units that boot, pair, train and blink as the real ones do. Something may be wrong in one:
        find it by its lamps. Nothing here teaches the durations or touches a customer.
      </p>
      {problem && (
        <p role="alert" className="mt-3 bg-inv p-2 font-bold text-oninv">
          {problem}
        </p>
      )}
      <ul className="mt-4 grid gap-4 md:grid-cols-2" aria-label="Houses">
        {houses
          ?.filter(({ template }) => template)
          .map((house) => (
            <li key={house.id} className="paper flex flex-col p-4">
              <h2 className="text-lg">{house.name}</h2>
              <p className="grow">{house.says}</p>
              <p className="fine mt-1">{house.units.join(', ')}</p>
              <p className="mt-2">
                <Button onClick={() => void begin({ from: house.id })}>Go in</Button>
              </p>
            </li>
          ))}
      </ul>
      {own.length > 0 && (
        <section aria-label="Begun">
          <h2 className="mt-6 text-lg">Begun by you</h2>
          <List framed className="mt-1">
            {own.map((house) => (
              <li key={house.id} className="flex items-center gap-3 py-1">
                <span className="grow">
                  {house.name}{' '}
                  <span className="fine">
                    {new Date(house.madeAt).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' })}
                  </span>
                </span>
                <Button onClick={() => void navigate(`/practice/${house.id}`)}>Go on</Button>
              </li>
            ))}
          </List>
        </section>
      )}
      <FileButton accept=".json,application/json" className="mt-4" onFile={(file) => void fromFile(file)}>
        A house from a file
      </FileButton>
    </Page>
  )
}
