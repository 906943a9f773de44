import { Drawer } from 'antd';
import { formatWant, outsideBy, transferEnds, unitOf, type Readout, type ReadoutAnswer } from '@zemble/core';
import { useMemo } from 'react';
import { isSlow } from '../../compute/is-slow.ts';
import { LatestRunner } from '../../compute/runner.ts';
import { useLatest } from '../../compute/use-latest.ts';
import type { ComparedSets, CompareRequest } from '../../compute/comparing.ts';
import { answerText } from '../../ui/readout-value.ts';
import { ToneMark } from '../../ui/marks.tsx';
import { useAnalysed } from '../../unit/analysed.tsx';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { SetCurves } from './set-curves.tsx';
import { setName } from './sets-bar.tsx';

const quickSets = new LatestRunner<CompareRequest, ComparedSets>('shown', async (engine, request) =>
  engine.compareSets(request),
);
const wholeSets = new LatestRunner<CompareRequest, ComparedSets>('later', async (engine, request) =>
  engine.compareSets(request),
);

const isOutside = (answer: ReadoutAnswer | null | undefined, readout: Readout): boolean =>
  answer?.ok === true && outsideBy(answer.value, readout.want) !== 0;

/** Every readout as it came and with each set, what is out of its range and what is mended marked. */
export function SetsTable({ onClose }: { onClose: () => void }) {
  const { document } = useUnitContext();
  const { circuit, readouts } = document;
  const { readoutId } = useAnalysed();
  const shown = readouts.find((r) => r.id === readoutId) ?? readouts[0];
  const response = useMemo(() => (shown ? transferEnds(shown) : null), [shown]);
  const hasSlow = document.readouts.some(isSlow);
  const quickly = useMemo(() => ({ document, response, withSlow: false }), [document, response]);
  const wholly = useMemo(
    () => (hasSlow ? { document, response, withSlow: true } : null),
    [document, response, hasSlow],
  );
  const quick = useLatest(quickSets, quickly);
  // What takes runs in time follows what is there at once.
  const whole = useLatest(wholeSets, wholly);
  const latest = whole.isCurrent ? whole.made : (quick.made ?? whole.made);
  const made = latest && { of: latest.of.document, sets: latest.answer };
  const why = quick.why ?? whole.why;
  const isLate = made?.of !== document;
  return (
    <Drawer open onClose={onClose} title="Sets side by side" size="large">
      {why !== null && (
        <p className="zb-problem" role="alert">
          The sets could not be compared: {why}
        </p>
      )}
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
