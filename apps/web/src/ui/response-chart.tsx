import type { Layer } from '@zemble/contract';
import { formatDecibel, formatQuantity } from '@zemble/core';
import { createContext, memo, use, useMemo, useState } from 'react';
import {
  CartesianGrid,
  ComposedChart,
  Line,
  ResponsiveContainer,
  Tooltip,
  useXAxisScale,
  useYAxisScale,
  XAxis,
  YAxis,
} from 'recharts';
import { CHART_MARGIN, FREQUENCY_AXIS, LEVEL_AXIS } from './chart-axes.ts';

export interface Curve {
  readonly layer: Layer;
  readonly gainDb: readonly number[];
}

interface Drawn {
  readonly frequencyHz: readonly number[];
  readonly curves: readonly Curve[];
  /** A shaded band between two curves at the same frequencies. */
  readonly band?: { readonly low: readonly number[]; readonly high: readonly number[] } | undefined;
}

interface ResponseChartProps extends Drawn {
  readonly label: string;
}

const DASH: Record<Layer, string> = { marked: '5 4', found: '0', planned: '9 3', proven: '2 2' };

/** What is drawn on the paper: curves that change while a value is turned draw themselves, and the paper stays. */
const DrawnContext = createContext<Drawn>({ frequencyHz: [], curves: [] });

/** Gain over frequency, one line a layer, with a cursor that reads all of them. */
export default function ResponseChart({ frequencyHz, curves, band, label }: ResponseChartProps) {
  const all = [...curves.flatMap((c) => c.gainDb), ...(band?.low ?? []), ...(band?.high ?? [])];
  const low = Math.floor(Math.min(...all) / 10) * 10;
  const high = Math.ceil(Math.max(...all) / 10) * 10;
  const drawn = useMemo(() => ({ frequencyHz, curves, band }), [frequencyHz, curves, band]);
  return (
    <figure className="zb-chart" aria-label={label}>
      <DrawnContext value={drawn}>
        <GridPaper frequencyHz={useSame(frequencyHz)} low={low} high={high} />
      </DrawnContext>
    </figure>
  );
}

/** The first of equal lists. */
function useSame(list: readonly number[]): readonly number[] {
  const [kept, setKept] = useState(list);
  if (kept === list || (kept.length === list.length && kept.every((x, i) => x === list[i]))) return kept;
  setKept(list);
  return list;
}

interface GridPaperProps {
  readonly frequencyHz: readonly number[];
  /** Ends of the gain axis, dB. */
  readonly low: number;
  readonly high: number;
}

/** Axes, grid and cursor. */
const GridPaper = memo(function GridPaper({ frequencyHz, low, high }: GridPaperProps) {
  // The cursor stops where there is data; the line of it is not drawn.
  const stops = useMemo(() => frequencyHz.map((f) => ({ f, at: low })), [frequencyHz, low]);
  return (
    <ResponsiveContainer width="100%" height="100%">
      <ComposedChart data={stops} margin={CHART_MARGIN}>
        <CartesianGrid stroke="var(--zb-line)" />
        <XAxis {...FREQUENCY_AXIS} />
        <YAxis {...LEVEL_AXIS} domain={[low, high]} width={52} />
        <Tooltip isAnimationActive={false} content={({ label }) => <CursorWords f={Number(label)} />} />
        <Line dataKey="at" stroke="none" dot={false} activeDot={false} isAnimationActive={false} />
        <Curves />
      </ComposedChart>
    </ResponsiveContainer>
  );
});

/** What every curve says at the cursor. */
function CursorWords({ f }: { f: number }) {
  const { frequencyHz, curves } = use(DrawnContext);
  const at = frequencyHz.indexOf(f);
  if (at < 0) return null;
  return (
    <div className="zb-chart-words">
      <p>{formatQuantity(f, 'Hz', { digits: 3 })}</p>
      {curves.map(({ layer, gainDb }) => (
        <p key={layer} style={{ color: `var(--zb-${layer})` }}>
          {layer}: {formatDecibel(gainDb[at]!, 2)} dB
        </p>
      ))}
    </div>
  );
}

function Curves() {
  const { frequencyHz, curves, band } = use(DrawnContext);
  const x = useXAxisScale();
  const y = useYAxisScale();
  if (!x || !y) return null;
  const across = frequencyHz.map((f) => Number(x(f)).toFixed(1));
  const points = (gainDb: readonly number[]) =>
    gainDb.map((g, i) => `${across[i]} ${Number(y(g)).toFixed(1)}`);
  return (
    <g fill="none">
      {band && (
        <path
          d={`M${points(band.high).join('L')}L${points(band.low).reverse().join('L')}Z`}
          fill={`var(--zb-${curves[0]?.layer ?? 'found'})`}
          fillOpacity={0.22}
        />
      )}
      {curves.map(({ layer, gainDb }) => (
        <path
          key={layer}
          data-curve={layer}
          d={`M${points(gainDb).join('L')}`}
          stroke={`var(--zb-${layer})`}
          strokeDasharray={DASH[layer]}
          strokeWidth={2}
        />
      ))}
    </g>
  );
}
