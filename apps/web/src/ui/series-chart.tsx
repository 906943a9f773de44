import { formatPlain, formatQuantity } from '@zemble/core';
import { CartesianGrid, Line, LineChart, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';
import { CHART_MARGIN, TICK } from './chart-axes.ts';

export interface Axis {
  readonly unit: string;
  readonly isLog: boolean;
}

interface SeriesChartProps {
  readonly x: readonly number[];
  readonly y: readonly number[];
  readonly xAxis: Axis;
  readonly yAxis: Axis;
  readonly colour: string;
  readonly label: string;
}

const text = (value: number, unit: string) =>
  unit.startsWith('nV') ? `${formatPlain(value, 2)} nV` : formatQuantity(value, unit, { digits: 2 });

/** Powers of ten inside a range, for a log axis. */
function decades(values: readonly number[]): number[] {
  const [low, high] = [Math.min(...values), Math.max(...values)];
  const ticks: number[] = [];
  for (let e = Math.floor(Math.log10(low)); e <= Math.ceil(Math.log10(high)); e += 1) ticks.push(10 ** e);
  return ticks;
}

/** One curve over an axis: noise over frequency, a voltage over time. */
export default function SeriesChart({ x, y, xAxis, yAxis, colour, label }: SeriesChartProps) {
  const data = x.map((value, i) => ({ x: value, y: y[i] }));
  const axis = (values: readonly number[], { isLog }: Axis) =>
    isLog
      ? {
          scale: 'log' as const,
          ticks: decades(values),
          domain: [decades(values)[0]!, decades(values).at(-1)!] as [number, number],
          allowDataOverflow: true,
        }
      : { domain: ['auto', 'auto'] as ['auto', 'auto'] };
  return (
    <figure className="zb-chart" aria-label={label}>
      <ResponsiveContainer width="100%" height="100%">
        <LineChart data={data} margin={CHART_MARGIN}>
          <CartesianGrid stroke="var(--zb-line)" />
          <XAxis
            dataKey="x"
            type="number"
            {...axis(x, xAxis)}
            tickFormatter={(v: number) => text(v, xAxis.unit)}
            stroke="var(--zb-dim)"
            tick={TICK}
          />
          <YAxis
            width={76}
            {...axis(y, yAxis)}
            tickFormatter={(v: number) => text(v, yAxis.unit)}
            stroke="var(--zb-dim)"
            tick={TICK}
          />
          <Tooltip
            isAnimationActive={false}
            contentStyle={{
              background: 'var(--zb-panel)',
              border: '1px solid var(--zb-line)',
              fontSize: 12,
              padding: '4px 8px',
            }}
            labelFormatter={(v) => text(Number(v), xAxis.unit)}
            formatter={(v) => [text(Number(v), yAxis.unit), label]}
          />
          <Line dataKey="y" stroke={colour} strokeWidth={2} dot={false} isAnimationActive={false} />
        </LineChart>
      </ResponsiveContainer>
    </figure>
  );
}
