import {
  batchSuspects,
  formatPlain,
  markedNumber,
  wantedRange,
  type Drift,
  type Readout,
  type Weighed,
} from '@zemble/core';
import { Button } from 'antd';
import { useSelection } from '../../unit/selection.tsx';
import type { Harm } from '../../compute/use-measuring.ts';
import { newId } from '../../api/new-id.ts';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { ToneMark } from '../../ui/marks.tsx';
import styles from './measure.module.css';

const TONES = { replace: 'out', watch: 'edge', leave: 'in' } as const;

/** Every drift by what it does, the fewest parts to make good, and the sisters of a bad one. */
export function HarmPanel({ harm: { weighed: harm, why } }: { harm: Harm }) {
  const { document, change } = useUnitContext();
  const { selectedRef, selectRef } = useSelection();
  if (why !== null)
    return (
      <p className="zb-problem" role="alert">
        The drifts could not be weighed: {why}
      </p>
    );
  if (!harm) return <p className="zb-empty-words">Weighing the drifts…</p>;
  const { drifts, replacement } = harm;
  if (drifts.length === 0)
    return (
      <p className="zb-empty-words">
        Nothing is found to differ from its marking yet. What differs is listed here by what it does to the
        readouts.
      </p>
    );
  const parts = document.circuit.parts;
  const sisters = batchSuspects(parts).map((p) => p.ref);
  const nameOf = (id: string | null) => document.readouts.find((r) => r.id === id)?.name ?? '';
  const leftOut = replacement.leftOut.map(nameOf);
  const plan = (refs: readonly string[]) => {
    const values = Object.fromEntries(
      refs.flatMap((ref) => {
        const part = parts.find((p) => p.ref === ref);
        const marked = part ? markedNumber(part) : null;
        return marked === null ? [] : [[ref, marked] as const];
      }),
    );
    const why = 'The fewest parts that bring every readout back.';
    if (Object.keys(values).length > 0)
      change({ type: 'plan-values', id: newId(), values, why, purpose: 'repair' });
  };
  return (
    <div className="zb-scroll" tabIndex={0} role="group" aria-label="Drifts, scroll">
      <p className={styles.replacement} role="status">
        {replacement.refs === null ? (
          'No few of these parts bring every readout back.'
        ) : replacement.refs.length === 0 ? (
          soundWords(harm, document.readouts)
        ) : (
          <>
            Replace <strong className="zb-mono">{replacement.refs.join(', ')}</strong>: that alone brings
            every readout back in range
            {leftOut.length === 0 ? '' : `; still being computed: ${leftOut.join(', ')}`}.{' '}
            <Button size="small" type="primary" onClick={() => plan(replacement.refs!)}>
              Plan it
            </Button>
          </>
        )}
      </p>
      {sisters.length > 0 && (
        <p className="zb-caution">
          Of the same batch, not measured yet:{' '}
          {sisters.map((ref) => (
            <button key={ref} className="zb-link zb-mono" onClick={() => selectRef(ref)}>
              {ref}
            </button>
          ))}
        </p>
      )}
      <table className="zb-table zb-suspects">
        <thead>
          <tr>
            <th>Part</th>
            <th className="zb-right">off by</th>
            <th>what to do</th>
            <th>moves most</th>
          </tr>
        </thead>
        <tbody>
          {drifts.map((d) => (
            <DriftRow
              key={d.ref}
              drift={d}
              name={nameOf(d.readoutId)}
              isSelected={d.ref === selectedRef}
              onSelect={selectRef}
            />
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** What holds where no part has to be made good for a readout's sake. */
function soundWords({ drifts, replacement }: Weighed, readouts: readonly Readout[]): string {
  const named = (ids: readonly string[]) =>
    ids.map((id) => readouts.find((r) => r.id === id)?.name ?? id).join(', ');
  const { leftOut, outAsMarked } = replacement;
  const worn = drifts.filter((d) => d.advice === 'replace').map((d) => d.ref);
  if (!readouts.some((r) => wantedRange(r.want) !== undefined))
    return worn.length > 0
      ? `No readout says what is wanted, so what is beyond its tolerance counts: replace ${worn.join(', ')}.`
      : 'No readout says what is wanted; nothing is beyond its tolerance.';
  if (outAsMarked.length > 0)
    return `${named(outAsMarked)}: outside what is wanted with every part as marked, so that no repair brings it there; that is a change to plan.`;
  if (leftOut.length > 0)
    return `Every readout that was looked at is in its range; still being computed: ${named(leftOut)}.`;
  return worn.length > 0
    ? `Every readout is in its range; ${worn.join(', ')} will soon push one out.`
    : 'Every readout is in its range; nothing has to be replaced.';
}

interface RowProps {
  readonly drift: Drift;
  readonly name: string;
  readonly isSelected: boolean;
  readonly onSelect: (ref: string) => void;
}

function DriftRow({ drift, name, isSelected, onSelect }: RowProps) {
  return (
    <tr className={isSelected ? 'zb-row-selected' : undefined} onClick={() => onSelect(drift.ref)}>
      <td className="zb-ref">
        <button className="zb-link" onClick={() => onSelect(drift.ref)}>
          {drift.ref}
        </button>
      </td>
      <td className="zb-number">
        {drift.deviation === null ? '' : `${formatPlain(drift.deviation * 100, 2, true)} %`}
      </td>
      <td className="zb-nowrap">
        <ToneMark tone={TONES[drift.advice]} /> {drift.advice}
      </td>
      <td className="zb-why" title={drift.why}>
        {name}
        {Number.isFinite(drift.harm) && drift.harm >= 0.01
          ? `, ${Math.round(drift.harm * 100)} % of its room`
          : ''}
      </td>
    </tr>
  );
}
