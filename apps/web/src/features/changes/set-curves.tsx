import { formatDecibel, formatQuantity, type Circuit } from '@zemble/core';
import { CartesianGrid, Legend, Line, LineChart, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';
import { COMPARED_HZ, type ComparedSets } from '../../compute/comparing.ts';
import { CHART_MARGIN, FREQUENCY_AXIS, LEVEL_AXIS } from '../../ui/chart-axes.ts';
import { setName } from './sets-bar.tsx';
import styles from './changes.module.css';

/** A set's curve differs from the others by its dashes as well as by its colour. */
const STROKES = [
  { stroke: 'var(--zb-found)', strokeDasharray: '0' },
  { stroke: 'var(--zb-planned)', strokeDasharray: '9 3' },
  { stroke: 'var(--zb-proven)', strokeDasharray: '2 2' },
  { stroke: 'var(--zb-action)', strokeDasharray: '12 3 2 3' },
  { stroke: 'var(--zb-marked)', strokeDasharray: '5 4' },
] as const;

interface SetCurvesProps {
  readonly sets: ComparedSets;
  readonly circuit: Circuit;
  readonly words: string;
}

/** The responses as it came and with each set, laid over one another. */
export function SetCurves({ sets, circuit, words }: SetCurvesProps) {
  const drawn = sets.filter((s) => s.gainDb !== null);
  if (drawn.length === 0) return null;
  const nameOf = (id: string | undefined) => {
    const set = circuit.sets?.find((s) => s.id === id);
    return set ? setName(set) : 'as it came';
  };
  const data = COMPARED_HZ.map((f, i) => ({
    f,
    ...Object.fromEntries(drawn.map((s, k) => [`c${k}`, s.gainDb![i]])),
  }));
  return (
    <figure className={styles.curves} aria-label={`${words}, of every set`}>
      <figcaption className="zb-dim">{words}</figcaption>
      <ResponsiveContainer width="100%" height={220}>
        <LineChart data={data} margin={CHART_MARGIN}>
          <CartesianGrid stroke="var(--zb-line)" />
          <XAxis {...FREQUENCY_AXIS} />
          <YAxis {...LEVEL_AXIS} width={64} domain={['auto', 'auto']} />
          <Tooltip
            formatter={(v) => `${formatDecibel(Number(v), 1)} dB`}
            labelFormatter={(f) => formatQuantity(Number(f), 'Hz')}
          />
          <Legend />
          {drawn.map((s, k) => (
            <Line
              key={s.set ?? ''}
              dataKey={`c${k}`}
              name={nameOf(s.set)}
              dot={false}
              isAnimationActive={false}
              strokeWidth={1.8}
              {...STROKES[k % STROKES.length]!}
            />
          ))}
        </LineChart>
      </ResponsiveContainer>
    </figure>
  );
}
