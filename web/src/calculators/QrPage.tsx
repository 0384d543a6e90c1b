import { useEffect, useState } from 'react'
import { toCanvas, toString as qrSvg } from 'qrcode'
import { wifiQr, wifiQrInput } from '@pasado/core/values/wifi-qr'
import type { Strength } from '@pasado/core/secrets/strength'
import { saveFile } from '../app/save-file'
import { newPassphrase } from '../visit/session/secrets'
import { PassphraseJudged } from '../ui/PassphraseJudged'
import { strengthOf } from '../workers/strength'
import { BenchPage, SelectBox } from './parts'
import { Button } from '../ui/Button'
import { Problem } from '../ui/Problem'
import { Field, Input } from '../ui/Field'

const securities = [
  { value: 'wpa', label: 'WPA2 or WPA3' },
  { value: 'wep', label: 'WEP (old)' },
  { value: 'open', label: 'open' }
] as const

/** A name and passphrase as a QR code to join by; the passphrase made and judged. Nothing of it leaves this page. */
export function QrPage() {
  const [ssid, setSsid] = useState('')
  const [security, setSecurity] = useState<'wpa' | 'wep' | 'open'>('wpa')
  const [passphrase, setPassphrase] = useState('')
  const [strength, setStrength] = useState<Strength | null>(null)
  const [svg, setSvg] = useState<string | null>(null)
  useEffect(() => {
    let here = true
    setStrength(null)
    if (passphrase && security === 'wpa')
      strengthOf(passphrase, [ssid]).then(
        (found) => {
          if (here) setStrength(found)
        },
        // Told by the bar that tells what failed.
        () => undefined
      )
    return () => {
      here = false
    }
  }, [passphrase, security, ssid])
  let problem: string | null = null
  let payload: string | null = null
  if (ssid && (security === 'open' || passphrase)) {
    const parsed = wifiQrInput.safeParse({ ssid, security, ...(security === 'open' ? {} : { passphrase }) })
    if (parsed.success) payload = wifiQr(parsed.data).payload
    else
      problem = parsed.error.issues
        .map(({ path, message }) => `${path[0] === 'ssid' ? 'Name' : 'Passphrase'} ${message}`)
        .join('; ')
  }
  useEffect(() => {
    let here = true
    setSvg(null)
    if (payload)
      void qrSvg(payload, { type: 'svg', margin: 2, errorCorrectionLevel: 'M' }).then((found) => {
        if (here) setSvg(found)
      })
    return () => {
      here = false
    }
  }, [payload])
  const blanks = ssid !== ssid.trim()
  const octets = new TextEncoder().encode(ssid).length
  return (
    <BenchPage
      title="Passphrase and QR"
      source="The code holds name, kind and passphrase as WIFI:T:…;S:…;P:…;; with its five special characters escaped. Strength by how many guesses an attacker needs who knows words, names and keyboards; the rates of guessing are estimates: 10, 2 million and 2 thousand million a second. Nothing typed here is kept or sent."
      inputs={
        <>
          <Field label="Name (SSID)">
            <Input exact autoComplete="off" value={ssid} onChange={(event) => setSsid(event.target.value)} />
            <span className="fine block font-normal">
              {octets} of 32 octets{blanks ? '; a blank at an end is part of it, and hard to type' : ''}
            </span>
          </Field>
          <SelectBox label="Kind" value={security} options={securities} onChange={setSecurity} />
          {security !== 'open' && (
            <Field label="Passphrase">
              <Input
                exact
                autoComplete="off"
                spellCheck={false}
                value={passphrase}
                onChange={(event) => setPassphrase(event.target.value)}
              />
            </Field>
          )}
          {security === 'wpa' && <Button onClick={() => setPassphrase(newPassphrase())}>Make one</Button>}
        </>
      }
      result={
        <>
          <Problem message={problem && `${problem}.`} />
          {security === 'wpa' && strength && <PassphraseJudged value={passphrase} strength={strength} />}
          {svg && !problem ? (
            <div className="mt-3">
              <div
                className="inline-block bg-white p-2"
                role="img"
                aria-label={`QR code to join ${ssid}`}
                style={{ width: 240 }}
                dangerouslySetInnerHTML={{ __html: svg }}
              />
              <p className="mt-2 flex gap-2">
                <Button onClick={() => saveFile('join.svg', svg, 'image/svg+xml')}>As SVG</Button>
                <Button onClick={() => savePng(payload!)}>As PNG</Button>
              </p>
            </div>
          ) : (
            !problem && (
              <p className="text-soft">Type a name{security === 'open' ? '' : ' and a passphrase, or make one'}.</p>
            )
          )}
        </>
      }
    />
  )
}

function savePng(payload: string): void {
  const canvas = document.createElement('canvas')
  void toCanvas(canvas, payload, { margin: 2, width: 720 }).then(() =>
    canvas.toBlob((blob) => {
      if (blob) saveFile('join.png', blob, 'image/png')
    }, 'image/png')
  )
}
