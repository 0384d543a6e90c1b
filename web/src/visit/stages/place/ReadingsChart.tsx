import {
  CartesianGrid,
  ReferenceLine,
  ResponsiveContainer,
  Scatter,
  ScatterChart,
  Tooltip,
  XAxis,
  YAxis
} from 'recharts'

interface Point {
  name: string
  predicted: number
  byTheBook: number
  read: number
}

/** What was read against what was predicted: on the line both are the same; rings are the book's predictions, before it learned. */
export function ReadingsChart({ points, bandDb }: { points: readonly Point[]; bandDb: number }) {
  const values = points.flatMap(({ predicted, byTheBook, read }) => [predicted, byTheBook, read])
  const [least, most] = [Math.floor(Math.min(...values) / 10) * 10, Math.ceil(Math.max(...values) / 10) * 10]
  const ends = (off: number) =>
    [
      { x: least, y: least + off },
      { x: most, y: most + off }
    ] as const
  return (
    <figure
      className="mt-3"
      role="img"
      aria-label={`Predicted against read, ${points.length} readings, within ± ${bandDb.toFixed(0)} dB`}
    >
      <ResponsiveContainer width="100%" height={240}>
        <ScatterChart margin={{ top: 8, right: 12, bottom: 22, left: 14 }} accessibilityLayer={false}>
          <CartesianGrid stroke="var(--rule)" />
          <XAxis
            type="number"
            dataKey="predicted"
            name="predicted"
            unit=" dBm"
            domain={[least, most]}
            stroke="var(--soft)"
            tick={{ fill: 'var(--ink)', fontSize: 13 }}
            label={{ value: 'predicted, dBm', position: 'insideBottom', offset: -12, fill: 'var(--ink)', fontSize: 13 }}
          />
          <YAxis
            type="number"
            dataKey="read"
            name="read"
            unit=" dBm"
            domain={[least, most]}
            stroke="var(--soft)"
            width={74}
            tick={{ fill: 'var(--ink)', fontSize: 13 }}
            label={{ value: 'read, dBm', angle: -90, position: 'insideLeft', fill: 'var(--ink)', fontSize: 13 }}
          />
          <ReferenceLine segment={ends(0)} stroke="var(--ink)" />
          <ReferenceLine segment={ends(bandDb)} stroke="var(--soft)" strokeDasharray="5 4" ifOverflow="hidden" />
          <ReferenceLine segment={ends(-bandDb)} stroke="var(--soft)" strokeDasharray="5 4" ifOverflow="hidden" />
          <Tooltip
            isAnimationActive={false}
            content={({ payload }) => {
              const point = payload[0]?.payload as Point | undefined
              return point ? (
                <div className="paper p-2 text-sm">
                  <b>{point.name}</b>
                  <br />
                  read {point.read} dBm, predicted {point.predicted.toFixed(0)} dBm
                </div>
              ) : null
            }}
          />
          <Scatter
            data={points.map((point) => ({ ...point, predicted: point.byTheBook }))}
            isAnimationActive={false}
            shape={(props: { cx?: number; cy?: number }) => (
              <circle cx={props.cx} cy={props.cy} r={4} fill="none" stroke="var(--soft)" />
            )}
          />
          <Scatter
            data={[...points]}
            isAnimationActive={false}
            shape={(props: { cx?: number; cy?: number }) => (
              <circle cx={props.cx} cy={props.cy} r={5} fill="var(--plum)" />
            )}
          />
        </ScatterChart>
      </ResponsiveContainer>
      <figcaption className="fine">
        Filled: predicted with what was learned; rings: by the book. On the line, read and predicted are the same;
        dashed: ± {bandDb.toFixed(0)} dB.
      </figcaption>
    </figure>
  )
}
