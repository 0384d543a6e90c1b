import { useEffect, useRef, useState } from 'react'
import Pad from 'signature_pad'
import { Sheet } from '../../../ui/Sheet'
import { Button } from '../../../ui/Button'
import { Problem } from '../../../ui/Problem'
import { Input } from '../../../ui/Field'

const WIDTH = 600
const HEIGHT = 200

/** The strokes of a pad as one SVG path of moves and lines. */
export function strokesOf(groups: { points: { x: number; y: number }[] }[], scale: number): string {
  const round = (value: number) => Math.round(value * scale * 10) / 10
  return groups
    .flatMap(({ points }) => points.map(({ x, y }, index) => `${index ? 'L' : 'M'}${round(x)} ${round(y)}`))
    .join(' ')
}

interface Signing {
  who: 'customer' | 'technician'
  suggested: string
  onSign: (name: string, strokes: string) => void
}

/** A sheet to sign on. */
export function SignaturePad({ onClose, ...signing }: Signing & { onClose: () => void }) {
  return (
    <Sheet
      open
      onClose={onClose}
      title={signing.who === 'customer' ? 'The customer signs' : 'The technician signs'}
      description="Under the record exactly as it is now."
    >
      <SignatureForm {...signing} />
    </Sheet>
  )
}

/** A signature, drawn with finger, pen or mouse; with the keyboard alone, Enter in the box draws a mark that stands for it. */
function SignatureForm({ who, suggested, onSign }: Signing) {
  const canvas = useRef<HTMLCanvasElement>(null)
  const pad = useRef<Pad | null>(null)
  const [name, setName] = useState(suggested)
  const [problem, setProblem] = useState<string | null>(null)
  useEffect(() => {
    if (!canvas.current) return
    canvas.current.width = canvas.current.clientWidth
    canvas.current.height = canvas.current.clientHeight
    const made = new Pad(canvas.current, { penColor: '#1D1822', minWidth: 1.2, maxWidth: 2.6, throttle: 0 })
    made.addEventListener('endStroke', () => setProblem(null))
    pad.current = made
    return () => made.off()
  }, [])
  const drawMark = () => {
    const width = canvas.current!.clientWidth
    const points = Array.from({ length: 24 }, (_, index) => ({
      x: width * (0.15 + index * 0.03),
      y: 70 + 24 * Math.sin(index * 0.9),
      pressure: 0.5,
      time: index
    }))
    pad.current?.fromData([
      {
        points,
        penColor: '#1D1822',
        dotSize: 1,
        minWidth: 1.2,
        maxWidth: 2.6,
        velocityFilterWeight: 0.7,
        compositeOperation: 'source-over'
      }
    ])
    setProblem(null)
  }
  const sign = (event: React.FormEvent) => {
    event.preventDefault()
    const drawn = pad.current
    const width = canvas.current!.clientWidth
    const groups = (drawn?.toData() ?? []).filter(({ points }) => points.length > 1)
    if (name.trim() === '') {
      setProblem('A name is missing: type who signs.')
      return
    }
    if (groups.length === 0) {
      setProblem('No stroke yet: sign in the box.')
      return
    }
    onSign(name.trim(), strokesOf(groups, WIDTH / width))
  }
  return (
    <form onSubmit={sign} className="flex flex-col gap-3">
      <div>
        <label className="label" htmlFor="signer">
          Name
        </label>
        <Input
          id="signer"
          className="mt-1"
          value={name}
          maxLength={120}
          readOnly={who === 'technician'}
          aria-describedby={who === 'technician' ? 'signer-why' : undefined}
          onChange={(event) => setName(event.target.value)}
        />
        {who === 'technician' && (
          <p id="signer-why" className="fine mt-1">
            The name you are logged in with.
          </p>
        )}
      </div>
      <canvas
        ref={canvas}
        tabIndex={0}
        role="img"
        aria-label="Signature box: draw here, or press Enter to put a mark"
        className="w-full touch-none border-2 border-ink bg-[#FBF8F1]"
        style={{ aspectRatio: `${WIDTH} / ${HEIGHT}` }}
        onKeyDown={(event) => {
          if (event.key === 'Enter') {
            event.preventDefault()
            drawMark()
          }
        }}
      />
      <Problem message={problem} />
      <div className="flex flex-wrap gap-2">
        <Button type="submit" kind="main">
          Sign
        </Button>
        <Button onClick={() => pad.current?.clear()}>Clear</Button>
      </div>
    </form>
  )
}
