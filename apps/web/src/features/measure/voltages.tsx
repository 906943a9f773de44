import { formatQuantity, netsOf, preparePath } from '@halfsplit/core';
import { useMemo } from 'react';
import { useLayer } from '../../app/layer.tsx';
import { useUnitContext } from '../../app/unit-context.tsx';
import { LayerMark, ToneMark } from '../../ui/marks.tsx';
import { measuredVolts } from './measured-volts.ts';

/** A reading this far from the computed voltage is out, this far at the edge: shares, and never closer than this, V. */
const OUT_SHARE = 0.15;
const EDGE_SHARE = 0.08;
const FLOOR_V = 0.1;

/** Computed direct voltage of every net beside what was measured, and what the twin channel has. */
export function Voltages({ onChoose }: { onChoose: (net: string) => void }) {
  const { unit, document, analysis, selectedNet, selectNet } = useUnitContext();
  const { layer } = useLayer();
  const volts = analysis?.layers[layer].volts;
  const seen = useMemo(() => measuredVolts(unit, document), [unit, document]);
  const twins = useMemo(() => twinNets(document), [document]);
  const nets = netsOf(document.circuit).filter((n) => n !== document.circuit.ground);
  return (
    <div className="hs-scroll" tabIndex={0} aria-label="Voltages, scroll">
      <table className="hs-table">
        <thead>
          <tr>
            <th>Net</th>
            <th>point</th>
            <th className="hs-right">
              <LayerMark layer={layer} /> computed
            </th>
            <th className="hs-right">measured</th>
            <th className="hs-right">off by</th>
            <th className="hs-right">twin</th>
          </tr>
        </thead>
        <tbody>
          {nets.map((net) => {
            const [expected, found] = [volts?.[net], seen.get(net)];
            const twin = twins.get(net);
            const point = unit.path?.testPoints?.find((t) => t.net === net);
            const off = expected !== undefined && found !== undefined ? found - expected : null;
            const tone = off === null ? null : toneOf(off, expected!);
            return (
              <tr
                key={net}
                className={net === selectedNet ? 'hs-row-selected' : undefined}
                onClick={() => {
                  selectNet(net);
                  onChoose(net);
                }}
              >
                <td className="hs-ref">
                  <button className="hs-link" aria-label={`Measure net ${net}`}>
                    {net}
                  </button>
                </td>
                <td className="hs-dim">{point?.name ?? ''}</td>
                <td className="hs-number hs-dim">
                  {expected === undefined ? '–' : formatQuantity(expected, 'V', { digits: 3 })}
                </td>
                <td className="hs-number hs-found">
                  {found === undefined ? '' : formatQuantity(found, 'V', { digits: 4 })}
                </td>
                <td className="hs-number">
                  {off !== null && tone && (
                    <>
                      <ToneMark tone={tone} /> {off > 0 ? '+' : '−'}
                      {formatQuantity(Math.abs(off), 'V', { digits: 2 })}
                    </>
                  )}
                </td>
                <td className="hs-number hs-dim">
                  {twin !== undefined && seen.has(twin)
                    ? formatQuantity(seen.get(twin)!, 'V', { digits: 3 })
                    : ''}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}

function toneOf(off: number, expected: number): 'in' | 'edge' | 'out' {
  const size = Math.max(Math.abs(expected), 1e-9);
  if (Math.abs(off) <= Math.max(FLOOR_V / 2, EDGE_SHARE * size)) return 'in';
  return Math.abs(off) <= Math.max(FLOOR_V, OUT_SHARE * size) ? 'edge' : 'out';
}

/** The net of the corresponding point in the other channel, by net. */
function twinNets({
  path,
  circuit,
}: ReturnType<typeof useUnitContext>['document']): ReadonlyMap<string, string> {
  const found = new Map<string, string>();
  if (!path?.twins || path.twins.length === 0) return found;
  const prepared = preparePath(path, circuit);
  for (const point of prepared.points) {
    const twin = prepared.twinOf(point);
    if (point.net !== undefined && twin?.net !== undefined) found.set(point.net, twin.net);
  }
  return found;
}
