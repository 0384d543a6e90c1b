import { FileButton } from '../../../../ui/FileButton'
import { bands, type Band } from '@pasado/core/values/band'
import { useState } from 'react'
import { neighbourNetwork } from '@pasado/core/record/neighbour-network'
import { readNumber } from '@pasado/core/values/number'
import { MOST_NEIGHBOURS, neighboursFromCsv } from '@pasado/core/documents/neighbours-csv'
import { ask, failureTitle } from '../../../../app/api'
import { useMayWrite } from '../../../session/facts'
import { useVisit } from '../../../session/visit-state'
import { write } from '../../../session/write'
import { Button } from '../../../../ui/Button'
import { Field, Select, Input } from '../../../../ui/Field'
import { FileTold } from '../../../../ui/FileTold'

/** The networks of others: from a list, or one by one. */
export function Neighbours() {
  const neighbours = useVisit((state) => state.record.neighbours)
  const house = useVisit((state) => state.record.house)
  const mayWrite = useMayWrite()
  const [told, setTold] = useState<string | null>(null)
  const [problems, setProblems] = useState<{ line: number; problem: string }[]>([])
  const [band, setBand] = useState<Band>('2.4')
  const [channel, setChannel] = useState('')
  const [dbm, setDbm] = useState('')
  const list = neighbours?.networks ?? []
  const listen = async () => {
    try {
      const { definition } = await ask('GET /houses/:id', { params: { id: house! } })
      const heard = [...(definition.air ?? [])].sort((a, b) => b.dbm - a.dbm)
      write('neighbours.noted', { networks: heard })
      setProblems([])
      setTold(
        heard.length === 0
          ? 'Nothing else is heard in this house.'
          : `${heard.length} networks heard in the simulated house, and noted.`
      )
    } catch (error) {
      setTold(failureTitle(error, 'The server is not in reach; try again.'))
    }
  }
  const read = async (file: File) => {
    if (file.size > 20_000_000) {
      setTold(`${file.name} is larger than 20 MB: take the part of it that was heard here.`)
      return
    }
    const found = neighboursFromCsv(await file.text())
    setProblems(found.problems.slice(0, 6))
    if (found.networks.length === 0) {
      setTold(found.problems.length ? null : `${file.name} holds no network.`)
      return
    }
    write('neighbours.noted', { networks: found.networks })
    setTold(
      `${found.networks.length} networks noted${found.of > found.networks.length ? `, the ${MOST_NEIGHBOURS} strongest of ${found.of}` : ''}.`
    )
  }
  const add = (event: React.FormEvent) => {
    event.preventDefault()
    const parsed = neighbourNetwork.safeParse({
      band,
      channel: readNumber(channel),
      widthMHz: 20,
      dbm: readNumber(dbm),
      busy: 0.15
    })
    if (!parsed.success) {
      setTold(
        `${{ channel: 'Channel must be a whole number from 1 to 233', dbm: 'Signal must be from -110 to -10 dBm' }[String(parsed.error.issues[0]!.path[0])] ?? 'That is no network'}.`
      )
      return
    }
    write('neighbours.noted', {
      networks: [...list, parsed.data].sort((a, b) => b.dbm - a.dbm).slice(0, MOST_NEIGHBOURS)
    })
    setChannel('')
    setDbm('')
    setTold(null)
  }
  return (
    <section aria-label="Neighbours’ networks">
      <div className="flex flex-wrap items-center gap-3">
        <h3>Neighbours’ networks</h3>
        <p className="fine grow">
          {list.length === 0
            ? 'none noted: the plan takes the air for empty'
            : `${list.length} noted, the strongest at ${list[0]!.dbm} dBm`}
        </p>
        {mayWrite && house && <Button onClick={() => void listen()}>Listen in the simulated house</Button>}
        {mayWrite && (
          <FileButton accept=".csv,text/csv" onFile={(file) => void read(file)}>
            From a list (CSV)
          </FileButton>
        )}
      </div>
      {mayWrite && (
        <form onSubmit={add} className="mt-2 flex flex-wrap items-end gap-2" aria-label="One more network">
          <Field label="Band">
            <Select value={band} onChange={(event) => setBand(event.target.value as Band)}>
              {bands.map((choice) => (
                <option key={choice} value={choice}>
                  {choice} GHz
                </option>
              ))}
            </Select>
          </Field>
          <Field label="Channel" className="w-28">
            <Input
              exact
              inputMode="numeric"
              autoComplete="off"
              value={channel}
              onChange={(event) => setChannel(event.target.value)}
            />
          </Field>
          <Field label="Signal, dBm" className="w-32">
            <Input
              exact
              inputMode="text"
              autoComplete="off"
              value={dbm}
              onChange={(event) => setDbm(event.target.value)}
            />
          </Field>
          <Button type="submit" disabled={!channel || !dbm}>
            Note it
          </Button>
        </form>
      )}
      <FileTold told={told} problems={problems} className="mt-2" />
    </section>
  )
}
