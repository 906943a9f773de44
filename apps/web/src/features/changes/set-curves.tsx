import { formatDecibel, formatQuantity, type Circuit } from '@halfsplit/core';
import { CartesianGrid, Legend, Line, LineChart, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';
import { COMPARED_HZ, type ComparedSets } from '../../compute/comparing.ts';
import { setName } from './sets-bar.tsx';
import styles from './changes.module.css';

const DECADES = [10, 100, 1000, 10_000, 100_000];
/** A set's curve differs from the others by its dashes as well as by its colour. */
const STROKES = [
  { stroke: 'var(--hs-found)', strokeDasharray: '0' },
  { stroke: 'var(--hs-planned)', strokeDasharray: '9 3' },
  { stroke: 'var(--hs-proven)', strokeDasharray: '2 2' },
  { stroke: 'var(--hs-action)', strokeDasharray: '12 3 2 3' },
  { stroke: 'var(--hs-marked)', strokeDasharray: '5 4' },
] as const;
const tick = { fontSize: 11, fill: 'var(--hs-dim)' };

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
      <figcaption className="hs-dim">{words}</figcaption>
      <ResponsiveContainer width="100%" height={220}>
        <LineChart data={data} margin={{ top: 8, right: 26, bottom: 0, left: 0 }}>
          <CartesianGrid stroke="var(--hs-line)" />
          <XAxis
            dataKey="f"
            type="number"
            scale="log"
            domain={[10, 100_000]}
            ticks={DECADES}
            tickFormatter={(v: number) => formatQuantity(v, 'Hz')}
            stroke="var(--hs-dim)"
            tick={tick}
          />
          <YAxis
            width={64}
            domain={['auto', 'auto']}
            tickFormatter={(v: number) => `${formatDecibel(v, 0)} dB`}
            stroke="var(--hs-dim)"
            tick={tick}
          />
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
