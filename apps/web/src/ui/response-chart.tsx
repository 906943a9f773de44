import type { Layer } from '@halfsplit/contract';
import { formatDecibel, formatQuantity } from '@halfsplit/core';
import {
  Area,
  CartesianGrid,
  ComposedChart,
  Line,
  ResponsiveContainer,
  Tooltip,
  XAxis,
  YAxis,
} from 'recharts';

export interface Curve {
  readonly layer: Layer;
  readonly gainDb: readonly number[];
}

interface ResponseChartProps {
  readonly frequencyHz: readonly number[];
  readonly curves: readonly Curve[];
  readonly label: string;
  /** A shaded band between two curves at the same frequencies. */
  readonly band?: { readonly low: readonly number[]; readonly high: readonly number[] };
}

const DECADES = [10, 100, 1000, 10_000, 100_000];
const DASH: Record<Layer, string> = { marked: '5 4', found: '0', planned: '9 3', proven: '2 2' };

/** Gain over frequency, one line a layer, with a cursor that reads all of them. */
export default function ResponseChart({ frequencyHz, curves, label, band }: ResponseChartProps) {
  const data = frequencyHz.map((f, i) => ({
    f,
    ...Object.fromEntries(curves.map((c) => [c.layer, c.gainDb[i]])),
    ...(band ? { band: [band.low[i], band.high[i]] } : {}),
  }));
  const all = [...curves.flatMap((c) => c.gainDb), ...(band?.low ?? []), ...(band?.high ?? [])];
  const low = Math.floor(Math.min(...all) / 10) * 10;
  const high = Math.ceil(Math.max(...all) / 10) * 10;
  return (
    <figure className="hs-chart" aria-label={label}>
      <ResponsiveContainer width="100%" height="100%">
        <ComposedChart data={data} margin={{ top: 8, right: 26, bottom: 0, left: 0 }}>
          <CartesianGrid stroke="var(--hs-line)" />
          <XAxis
            dataKey="f"
            type="number"
            scale="log"
            domain={[10, 100_000]}
            ticks={DECADES}
            tickFormatter={(f: number) => formatQuantity(f, 'Hz')}
            stroke="var(--hs-dim)"
            tick={{ fontSize: 11, fill: 'var(--hs-dim)' }}
          />
          <YAxis
            domain={[low, high]}
            width={52}
            tickFormatter={(v: number) => `${formatDecibel(v, 0)} dB`}
            stroke="var(--hs-dim)"
            tick={{ fontSize: 11, fill: 'var(--hs-dim)' }}
          />
          <Tooltip
            isAnimationActive={false}
            contentStyle={{
              background: 'var(--hs-panel)',
              border: '1px solid var(--hs-line)',
              fontSize: 12,
              padding: '4px 8px',
            }}
            labelFormatter={(f) => formatQuantity(Number(f), 'Hz', { digits: 3 })}
            formatter={(value, name) => [`${formatDecibel(Number(value), 2)} dB`, String(name)]}
          />
          {band && (
            <Area
              dataKey="band"
              stroke="none"
              fill={`var(--hs-${curves[0]?.layer ?? 'found'})`}
              fillOpacity={0.22}
              isAnimationActive={false}

              tooltipType="none"
            />
          )}
          {curves.map((c) => (
            <Line
              key={c.layer}
              dataKey={c.layer}
              stroke={`var(--hs-${c.layer})`}
              strokeDasharray={DASH[c.layer]}
              strokeWidth={2}
              dot={false}

              isAnimationActive={false}
            />
          ))}
        </ComposedChart>
      </ResponsiveContainer>
    </figure>
  );
}
