import {
  formatQuantity,
  judgeVoltage,
  netsOf,
  preparePath,
  probePlaces,
  resolveLayer,
  restingCurrents,
  supplyVerdicts,
  type RestingCurrent,
  type UnitDocument,
} from '@zemble/core';
import { useMemo } from 'react';
import { useLayer } from '../../unit/layer.tsx';
import { useSelection } from '../../unit/selection.tsx';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { LayerMark, ToneMark } from '../../ui/marks.tsx';
import type { Volts } from './use-volts.ts';
import styles from './measure.module.css';

/** Computed direct voltage of every net beside what was measured, and what the twin channel has. */
export function Voltages({ volts, onChoose }: VoltsProps) {
  const { document } = useUnitContext();
  return (
    <div className="zb-scroll" tabIndex={0} role="group" aria-label="Voltages, scroll">
      <Hints document={document} volts={volts.shown} seen={volts.seen} />
      <VoltsTable volts={volts} onChoose={onChoose} />
    </div>
  );
}

interface VoltsProps {
  readonly volts: Volts;
  readonly onChoose: (net: string) => void;
}

/** A meter that takes this part of a voltage is worth a word. */
const LOADS = 0.01;

/** What is computed at a net, and what the meter makes of it where it loads the net. */
function computedWords(free: number | undefined, shown: number | undefined): string {
  if (shown === undefined) return '–';
  const text = (volt: number) => formatQuantity(volt, 'V', { digits: 3 });
  return free !== undefined && Math.abs(free - shown) > LOADS * Math.abs(free)
    ? `${text(free)}, meter shows ${text(shown)}`
    : text(shown);
}

function VoltsTable({ volts: { shown, free, seen }, onChoose }: VoltsProps) {
  const { unit, document } = useUnitContext();
  const { selectedNet, selectNet } = useSelection();
  const { layer } = useLayer();
  const twins = useMemo(() => twinNets(document), [document]);
  const nets = netsOf(document.circuit).filter((n) => n !== document.circuit.ground);
  const places = useMemo(
    () => new Map(netsOf(document.circuit).map((net) => [net, probePlaces(document.circuit.parts, net)[0]])),
    [document.circuit],
  );
  return (
    <table className="zb-table">
      <thead>
        <tr>
          <th>Net</th>
          <th>point</th>
          <th className="zb-right">
            <LayerMark layer={layer} /> computed
          </th>
          <th className="zb-right">measured</th>
          <th className="zb-right">off by</th>
          <th className="zb-right">twin</th>
        </tr>
      </thead>
      <tbody>
        {nets.map((net) => {
          const [expected, found] = [shown.get(net), seen.get(net)];
          const twin = twins.get(net);
          const point = unit.path?.testPoints?.find((t) => t.net === net);
          const off = expected !== undefined && found !== undefined ? found - expected : null;
          return (
            <tr
              key={net}
              className={net === selectedNet ? 'zb-row-selected' : undefined}
              onClick={() => {
                selectNet(net);
                onChoose(net);
              }}
            >
              <td className="zb-ref">
                <button className="zb-link" aria-label={`Measure net ${net}`}>
                  {net}
                </button>
              </td>
              <td className="zb-dim" title={places.get(net)?.words}>
                {point?.name ?? places.get(net)?.short ?? ''}
              </td>
              <td className="zb-number zb-dim">{computedWords(free.get(net), expected)}</td>
              <td className="zb-number zb-found">
                {found === undefined ? '' : formatQuantity(found, 'V', { digits: 4 })}
              </td>
              <td className="zb-number">
                {off !== null && (
                  <>
                    <ToneMark tone={judgeVoltage(found!, expected!).kind} /> {off > 0 ? '+' : '−'}
                    {formatQuantity(Math.abs(off), 'V', { digits: 2 })}
                  </>
                )}
              </td>
              <td className="zb-number zb-dim">
                {twin !== undefined && seen.has(twin)
                  ? formatQuantity(seen.get(twin)!, 'V', { digits: 3 })
                  : ''}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

/** What the voltages say of chips and stages: a supply below what a chip needs, and the current a stage rests at. */
function Hints({
  document,
  volts,
  seen,
}: {
  document: UnitDocument;
  volts: ReadonlyMap<string, number>;
  seen: ReadonlyMap<string, number>;
}) {
  const { layer } = useLayer();
  const known = useMemo(() => new Map([...volts, ...seen]), [volts, seen]);
  const circuit = useMemo(() => resolveLayer(document.circuit, layer), [document.circuit, layer]);
  const supplies = useMemo(() => supplyVerdicts(circuit, known), [circuit, known]);
  const currents = useMemo(
    () => restingCurrents(circuit, seen, volts).filter((c) => c.through.length > 0),
    [circuit, seen, volts],
  );
  if (supplies.length === 0 && currents.length === 0) return null;
  return (
    <ul className={styles.asideList}>
      {supplies.map((s) => (
        <li key={s.ref}>
          <ToneMark tone={s.kind} /> {s.sentence}
        </li>
      ))}
      {currents.map((c) => (
        <li key={c.ref}>
          {c.tone && <ToneMark tone={c.tone} />} {currentWords(c)}
        </li>
      ))}
    </ul>
  );
}

function currentWords({ ref, through, measured, computed }: RestingCurrent): string {
  const text = (ampere: number) => formatQuantity(ampere, 'A', { digits: 3 });
  const wanted = computed === undefined ? '' : `, computed ${text(computed)}`;
  return `${text(measured)} through ${ref} at ${through.join(' and ')}${wanted}`;
}

/** The net of the corresponding point in the other channel, by net. */
function twinNets({ path, circuit }: UnitDocument): ReadonlyMap<string, string> {
  const found = new Map<string, string>();
  if (!path?.twins || path.twins.length === 0) return found;
  const prepared = preparePath(path, circuit);
  for (const point of prepared.points) {
    const twin = prepared.twinOf(point);
    if (point.net !== undefined && twin?.net !== undefined) found.set(point.net, twin.net);
  }
  return found;
}
