import { Drawer } from 'antd';
import { formatWant, outsideBy, transferEnds, unitOf, type Readout, type ReadoutAnswer } from '@zemble/core';
import { useEffect, useMemo, useState } from 'react';
import { isSlow } from '../../compute/is-slow.ts';
import { LatestRunner } from '../../compute/runner.ts';
import type { ComparedSets, CompareRequest } from '../../compute/comparing.ts';
import { answerText } from '../../ui/readout-value.ts';
import { ToneMark } from '../../ui/marks.tsx';
import { useAnalysed } from '../../unit/analysed.tsx';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { SetCurves } from './set-curves.tsx';
import { setName } from './sets-bar.tsx';

let comparers: LatestRunner<CompareRequest, ComparedSets> | null = null;

const isOutside = (answer: ReadoutAnswer | null | undefined, readout: Readout): boolean =>
  answer?.ok === true && outsideBy(answer.value, readout.want) !== 0;

/** Every readout as it came and with each set, what is out of its range and what is mended marked. */
export function SetsTable({ onClose }: { onClose: () => void }) {
  const { document } = useUnitContext();
  const { circuit, readouts } = document;
  const { readoutId } = useAnalysed();
  const shown = readouts.find((r) => r.id === readoutId) ?? readouts[0];
  const response = useMemo(() => (shown ? transferEnds(shown) : null), [shown]);
  const [made, setMade] = useState<{ of: typeof document; sets: ComparedSets } | null>(null);
  useEffect(() => {
    let isCurrent = true;
    comparers ??= new LatestRunner('shown', async (engine, request) => engine.compareSets(request));
    const runner = comparers;
    const compare = (withSlow: boolean) =>
      runner.run({ document, response, withSlow }, (sets) => {
        if (!isCurrent) return;
        setMade({ of: document, sets });
        // What takes runs in time follows what is there at once.
        if (!withSlow && document.readouts.some(isSlow)) compare(true);
      });
    compare(false);
    return () => {
      isCurrent = false;
    };
  }, [document, response]);
  const isLate = made?.of !== document;
  return (
    <Drawer open onClose={onClose} title="Sets side by side" size="large">
      <table className="zb-table" aria-busy={isLate}>
        <thead>
          <tr>
            <th>Readout</th>
            <th className="zb-right">wanted</th>
            <th className="zb-right">as it came</th>
            {(circuit.sets ?? []).map((set) => (
              <th key={set.id} className="zb-right">
                {setName(set)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {readouts.map((readout, i) => {
            const unit = unitOf(readout, readouts);
            return (
              <tr key={readout.id}>
                <td>{readout.name}</td>
                <td className="zb-number zb-dim">{formatWant(readout.want, unit)}</td>
                {[undefined, ...(circuit.sets ?? []).map((s) => s.id)].map((id) => {
                  const answer = made?.sets.find((s) => s.set === id)?.answers[i];
                  const came = made?.sets.find((s) => s.set === undefined)?.answers[i];
                  const isOut = isOutside(answer, readout);
                  const isMended = !isOut && answer?.ok === true && isOutside(came, readout);
                  return (
                    <td
                      key={id ?? ''}
                      className={`zb-number${isOut ? ' zb-out' : isMended ? ' zb-in' : ''}`}
                      title={answer && !answer.ok ? answer.problem.message : undefined}
                    >
                      {(isOut || isMended) && <ToneMark tone={isOut ? 'out' : 'in'} />}
                      {answer ? answerText(answer, unit) : '…'}
                    </td>
                  );
                })}
              </tr>
            );
          })}
        </tbody>
      </table>
      {made && response && (
        <SetCurves sets={made.sets} circuit={circuit} words={`Gain, ${response.from} to ${response.to}`} />
      )}
    </Drawer>
  );
}
