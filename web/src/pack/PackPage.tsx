import QRCode from 'qrcode'
import { useEffect, useState } from 'react'
import { useLocation } from 'react-router'
import { usedFor } from '@pasado/core/documents/pack-words'
import { checkWords, choiceWords, wordsOfPack, type PackContent } from '@pasado/core/documents/pack-content'
import { ApiProblem, ask, failureTitle } from '../app/api'
import { Lens } from '../ui/Lens'
import { Button } from '../ui/Button'
import { Heading } from '../ui/Page'
import { Input } from '../ui/Field'
import { List } from '../ui/List'

/** The customer's pack as a page: the link's token stands behind the #, which no server is told, and the code was told by voice. */
export function PackPage() {
  const token = useLocation().hash.slice(1)
  const [pack, setPack] = useState<PackContent | null>(null)
  const [code, setCode] = useState('')
  const [problem, setProblem] = useState<string | null>(null)
  const [busy, setBusy] = useState(false)
  useEffect(() => {
    document.title = 'Pasado'
  }, [])
  const open = async (event: React.FormEvent) => {
    event.preventDefault()
    setBusy(true)
    setProblem(null)
    try {
      setPack(await ask('POST /pack', { body: { token, code } }))
    } catch (error) {
      const isRefused = error instanceof ApiProblem && error.status === 422
      setProblem(isRefused ? error.words : failureTitle(error, 'It could not be opened; try again.'))
    } finally {
      setBusy(false)
    }
  }
  if (pack) return <Pack pack={pack} />
  return (
    <main className="mx-auto flex min-h-dvh max-w-md flex-col justify-center p-6">
      <Heading>
        Your home network{' '}
        <span lang="es" className="block text-lg text-soft">
          La red de su casa
        </span>
      </Heading>
      <form onSubmit={(event) => void open(event)} className="mt-5 flex flex-col gap-3">
        <label className="label" htmlFor="code">
          The code that you were told{' '}
          <span lang="es" className="block font-normal text-soft">
            El código que le dijeron
          </span>
        </label>
        <Input
          id="code"
          exact
          className="text-center text-3xl tracking-[0.3em]"
          inputMode="numeric"
          autoComplete="one-time-code"
          maxLength={9}
          autoFocus
          value={code}
          onChange={(event) => {
            setCode(event.target.value)
            setProblem(null)
          }}
          aria-describedby="code-says"
        />
        <p id="code-says" className="fine">
          Six digits. After five wrong ones the link ends.{' '}
          <span lang="es">Seis cifras; tras cinco errores, el enlace se anula.</span>
        </p>
        {problem && (
          <p role="alert" className="border-l-8 border-inv bg-well p-3 font-bold">
            {problem}
          </p>
        )}
        <Button type="submit" kind="main" disabled={busy || code.trim() === ''}>
          {busy ? 'Opening …' : 'Open · Abrir'}
        </Button>
      </form>
    </main>
  )
}

function Pack({ pack }: { pack: PackContent }) {
  const words = wordsOfPack(pack.language)
  useEffect(() => {
    document.title = words.title
    document.documentElement.lang = pack.language
    return () => {
      document.documentElement.lang = 'en'
    }
  }, [words, pack.language])
  return (
    <main lang={pack.language} className="mx-auto max-w-3xl p-4 text-lg sm:p-6">
      <h1 className="text-3xl">{words.title}</h1>
      <p className="text-soft">
        {pack.customer} · {pack.street}
      </p>
      <h2 className="mt-6 text-xl">{words.join}</h2>
      <p>{words.joinHow}</p>
      {pack.networks.map((network) => (
        <Network key={`${network.ssid} ${network.use ?? network.guests}`} network={network} pack={pack} />
      ))}
      {pack.logins !== undefined && pack.logins.length > 0 && (
        <>
          <h2 className="mt-6 text-xl">{words.logins}</h2>
          <p>{words.loginsHow}</p>
          <ul>
            {pack.logins.map(({ units, pages, name, password }) => (
              <li key={units.join()} className="paper mt-3 p-4">
                <b>{units.join(', ')}</b> <span className="exact text-soft">{pages.join(', ')}</span>
                {name !== null && (
                  <>
                    <p className="fine mt-2">{words.user}</p>
                    <p className="exact text-xl font-bold">{name}</p>
                  </>
                )}
                <p className="fine mt-2">{words.password}</p>
                <p className="exact text-xl font-bold [overflow-wrap:anywhere]">{password ?? words.notKept}</p>
              </li>
            ))}
          </ul>
        </>
      )}
      <h2 className="mt-6 text-xl">{words.whereAll}</h2>
      <ul>
        {pack.units.map((unit) => (
          <li key={unit.name} className="paper mt-3 p-4">
            <b className="text-xl">{unit.name}</b> <span className="text-soft">{unit.place}</span>
            {unit.model && <span className="fine block">{unit.model}</span>}
            {unit.well.length > 0 && (
              <p className="mt-2 flex flex-wrap items-center gap-x-3">
                {words.allWell}{' '}
                {unit.well.map((look) => (
                  <span key={look.lamp} className="inline-flex items-center gap-2">
                    <Lens colour={look.colour} pattern={look.pattern} size={26} />
                    <b>{look.words}</b>
                  </span>
                ))}
              </p>
            )}
            {unit.wrong.length > 0 && (
              <List className="mt-2 border-t border-rule">
                {unit.wrong.map(({ looks, says }) => (
                  <li key={says} className="grid grid-cols-[auto_minmax(0,1fr)] items-center gap-x-3 py-2 text-base">
                    <span className="flex">
                      {looks.map((look) => (
                        <Lens key={look.lamp} colour={look.colour} pattern={look.pattern} size={24} />
                      ))}
                    </span>
                    <span>
                      <b>{looks.map((look) => look.words).join('; ')}:</b> {says}
                    </span>
                  </li>
                ))}
              </List>
            )}
          </li>
        ))}
      </ul>
      {pack.plan.length > 0 && (
        <>
          <h2 className="mt-6 text-xl">{words.plan}</h2>
          <div className="mt-2 flex flex-wrap gap-3">
            {pack.plan.map(({ storey, svg }) => (
              <img
                key={storey}
                alt={storey}
                className="max-h-80 max-w-full border border-rule bg-[#FBF8F1]"
                src={`data:image/svg+xml;charset=utf-8,${encodeURIComponent(svg)}`}
              />
            ))}
          </div>
        </>
      )}
      <h2 className="mt-6 text-xl">{words.wrong}</h2>
      <ol className="mt-1 list-decimal pl-6">
        {words.steps(pack.company.name, pack.company.phone).map((step) => (
          <li key={step} className="mt-1">
            {step}
          </li>
        ))}
      </ol>
      {pack.mesh && (
        <>
          <h2 className="mt-6 text-xl">{words.settle}</h2>
          <p>{words.settleSays(checkWords(pack))}</p>
        </>
      )}
      <h2 className="mt-6 text-xl">{words.chose}</h2>
      <dl className="mt-1 divide-y divide-rule border-y border-rule">
        {choiceWords(pack).map(({ choice, answer }) => (
          <div key={choice} className="grid grid-cols-2 gap-3 py-2">
            <dt>{choice}</dt>
            <dd className="font-bold">{answer}</dd>
          </div>
        ))}
      </dl>
      {pack.telephone && (
        <p className="mt-6 border-2 border-ink p-4">
          <b>{words.power}</b>
          {words.powerSays}
        </p>
      )}
      <p className="fine mt-6">
        {pack.company.name} · {pack.company.phone}
      </p>
    </main>
  )
}

function Network({ network, pack }: { network: PackContent['networks'][number]; pack: PackContent }) {
  const words = wordsOfPack(pack.language)
  const [picture, setPicture] = useState<string | null>(null)
  useEffect(() => {
    let here = true
    if (network.qr !== null)
      void QRCode.toString(network.qr, { type: 'svg', margin: 2, errorCorrectionLevel: 'M' }).then((svg) => {
        if (here) setPicture(svg)
      })
    return () => {
      here = false
    }
  }, [network.qr])
  return (
    <section
      aria-label={usedFor(words, network)}
      className="paper mt-3 flex flex-wrap items-center justify-between gap-4 p-4"
    >
      <div className="min-w-0">
        <b>{usedFor(words, network)}</b>
        <p className="fine mt-2">{words.name}</p>
        <p className="exact text-xl font-bold [overflow-wrap:anywhere]">{network.ssid}</p>
        <p className="fine mt-2">{words.passphrase}</p>
        <p className="exact text-xl font-bold [overflow-wrap:anywhere]">
          {network.open ? words.open : (network.passphrase ?? words.notKept)}
        </p>
      </div>
      {picture && (
        <img
          alt="QR"
          className="h-40 w-40 bg-white"
          src={`data:image/svg+xml;charset=utf-8,${encodeURIComponent(picture)}`}
        />
      )}
    </section>
  )
}
