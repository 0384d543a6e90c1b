import { useEffect, useRef, useState } from 'react'
import { Flashlight } from 'lucide-react'
import { glance } from '../../../workers/label'
import { Button } from '../../../ui/Button'

const GLANCE_MS = 500

/** What to do where the camera cannot be had, by the name of the error. */
const cameraProblems: Record<string, string> = {
  NotAllowedError:
    'The camera is not allowed here. Allow it in the browser’s settings for this page, or choose a photo.',
  NotFoundError: 'This device has no camera. Choose a photo, or paste the text.',
  NotReadableError: 'Another program has the camera. Close it there, or choose a photo.'
}

/** The live camera: a code that comes into sight is enough; else the picture is taken by hand. */
export function LiveCamera({ onPicture, onLeave }: { onPicture: (photo: Blob) => void; onLeave: () => void }) {
  const video = useRef<HTMLVideoElement>(null)
  const taken = useRef(false)
  const [problem, setProblem] = useState<string | null>(null)
  const [track, setTrack] = useState<MediaStreamTrack | null>(null)
  const [lit, setLit] = useState(false)
  const [ready, setReady] = useState(false)
  const take = useRef<() => Promise<void>>(async () => undefined)
  take.current = async () => {
    const seen = video.current
    if (!seen?.videoWidth || taken.current) return
    taken.current = true
    const canvas = document.createElement('canvas')
    canvas.width = seen.videoWidth
    canvas.height = seen.videoHeight
    canvas.getContext('2d')!.drawImage(seen, 0, 0)
    const photo = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/png'))
    if (photo) onPicture(photo)
    else taken.current = false
  }
  useEffect(() => {
    let stream: MediaStream | null = null
    let left = false
    let timer: ReturnType<typeof setTimeout> | undefined
    const look = async () => {
      const seen = video.current
      if (left || taken.current) return
      if (seen?.videoWidth && seen.readyState >= 2) {
        const codes = await glance(await createImageBitmap(seen)).catch(() => [])
        if (codes.length && !left) {
          await take.current()
          return
        }
      }
      timer = setTimeout(() => void look(), GLANCE_MS)
    }
    const begin = async () => {
      try {
        if (!navigator.mediaDevices) throw Object.assign(new Error(), { name: 'NotFoundError' })
        stream = await navigator.mediaDevices.getUserMedia({
          audio: false,
          video: { facingMode: { ideal: 'environment' }, width: { ideal: 1920 }, height: { ideal: 1080 } }
        })
        if (left || !video.current) {
          stream.getTracks().forEach((track) => track.stop())
          return
        }
        video.current.srcObject = stream
        await video.current.play()
        setTrack(stream.getVideoTracks()[0] ?? null)
        setReady(true)
        void look()
      } catch (error) {
        if (!left)
          setProblem(
            cameraProblems[(error as Error).name] ??
              'The camera cannot be used just now. Choose a photo, or paste the text.'
          )
      }
    }
    void begin()
    return () => {
      left = true
      clearTimeout(timer)
      stream?.getTracks().forEach((track) => track.stop())
    }
  }, [])
  const hasTorch = (track?.getCapabilities?.() as { torch?: boolean } | undefined)?.torch === true
  const turnTorch = () => {
    void track?.applyConstraints({ advanced: [{ torch: !lit } as MediaTrackConstraintSet] }).then(
      () => setLit(!lit),
      () => undefined
    )
  }
  if (problem)
    return (
      <div>
        <p role="alert" className="bg-inv p-3 font-bold text-oninv">
          {problem}
        </p>
        <p className="mt-3">
          <Button onClick={onLeave}>Another way</Button>
        </p>
      </div>
    )
  return (
    <div>
      <video
        ref={video}
        muted
        playsInline
        aria-label="What the camera sees"
        data-secret
        className="max-h-[52dvh] w-full bg-band object-contain"
      />
      <p className="fine mt-2" role="status">
        {ready
          ? 'Hold the label still. A code in sight is read by itself; without one, take the picture.'
          : 'Starting the camera …'}
      </p>
      <div className="mt-2 flex flex-wrap gap-2">
        <Button kind="main" disabled={!ready} onClick={() => void take.current()}>
          Read what it sees
        </Button>
        {hasTorch && (
          <Button aria-pressed={lit} onClick={turnTorch}>
            <Flashlight aria-hidden size={20} />
            {lit ? 'Light off' : 'Light on'}
          </Button>
        )}
        <Button kind="quiet" onClick={onLeave}>
          Another way
        </Button>
      </div>
    </div>
  )
}
