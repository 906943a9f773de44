import {
  formatQuantity,
  judgeVoltage,
  netsOf,
  preparePath,
  restingCurrents,
  supplyVerdicts,
  type RestingCurrent,
  type UnitDocument,
} from '@halfsplit/core';
import { Segmented } from 'antd';
import { useMemo, useState } from 'react';
import { useLayer } from '../../app/layer.tsx';
import { useUnitContext } from '../../app/unit-context.tsx';
import { LayerMark, ToneMark } from '../../ui/marks.tsx';
import { PhotosPanel } from '../path/index.ts';
import { measuredVolts } from './measured-volts.ts';

const PLACES = ['List', 'On the board'] as const;
type Place = (typeof PLACES)[number];

/** Computed direct voltage of every net beside what was measured, as a list or on the board's photo. */
export function Voltages({ onChoose }: { onChoose: (net: string) => void }) {
  const { unit, document, analysis } = useUnitContext();
  const { layer } = useLayer();
  const [place, setPlace] = useState<Place>('List');
  const computed = analysis?.layers[layer].volts;
  const volts = useMemo(() => new Map(Object.entries(computed ?? {})), [computed]);
  const seen = useMemo(() => measuredVolts(unit, document), [unit, document]);
  const isOnBoard = place === 'On the board' && unit.photos.length > 0;
  return (
    <div className="hs-scroll" tabIndex={0} aria-label="Voltages, scroll">
      {unit.photos.length > 0 && (
        <Segmented<Place>
          size="small"
          className="hs-spaced-side"
          options={[...PLACES]}
          value={place}
          onChange={setPlace}
          aria-label="Where voltages are shown"
        />
      )}
      <Hints document={document} volts={volts} seen={seen} />
      {isOnBoard ? (
        <BoardVolts volts={volts} seen={seen} onChoose={onChoose} />
      ) : (
        <VoltsTable volts={volts} seen={seen} onChoose={onChoose} />
      )}
    </div>
  );
}

interface VoltsProps {
  readonly volts: ReadonlyMap<string, number>;
  readonly seen: ReadonlyMap<string, number>;
  readonly onChoose: (net: string) => void;
}

function VoltsTable({ volts, seen, onChoose }: VoltsProps) {
  const { unit, document, selectedNet, selectNet } = useUnitContext();
  const { layer } = useLayer();
  const twins = useMemo(() => twinNets(document), [document]);
  const nets = netsOf(document.circuit).filter((n) => n !== document.circuit.ground);
  return (
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
          const [expected, found] = [volts.get(net), seen.get(net)];
          const twin = twins.get(net);
          const point = unit.path?.testPoints?.find((t) => t.net === net);
          const off = expected !== undefined && found !== undefined ? found - expected : null;
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
                {off !== null && (
                  <>
                    <ToneMark tone={judgeVoltage(found!, expected!).kind} /> {off > 0 ? '+' : '−'}
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
  );
}

/** The photo with the voltage at every point: the computed one, and what was measured. */
function BoardVolts({ volts, seen, onChoose }: VoltsProps) {
  const { unit, selectNet, selectPoint } = useUnitContext();
  const netOf = useMemo(() => {
    const points = new Map((unit.path?.testPoints ?? []).map((t) => [t.id, t.net]));
    return (target: string) => points.get(target) ?? target;
  }, [unit.path]);
  const labels = useMemo(() => {
    const targets = unit.photos.flatMap((photo) => photo.points.map((p) => p.target));
    const found = new Map<string, { text: string; tone: string | null }>();
    for (const target of targets) {
      const [expected, measured] = [volts.get(netOf(target)), seen.get(netOf(target))];
      if (expected === undefined) continue;
      const text = formatQuantity(expected, 'V', { digits: 3 });
      if (measured === undefined) found.set(target, { text, tone: null });
      else
        found.set(target, {
          text: `${text}, is ${formatQuantity(measured, 'V', { digits: 3 })}`,
          tone: judgeVoltage(measured, expected).kind,
        });
    }
    return found;
  }, [unit.photos, volts, seen, netOf]);
  return (
    <PhotosPanel
      isBare
      labels={labels}
      onSelectPoint={(target) => {
        selectPoint(target);
        const net = netOf(target);
        if (!volts.has(net)) return;
        selectNet(net);
        onChoose(net);
      }}
    />
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
  const supplies = useMemo(() => supplyVerdicts(document.circuit, known), [document.circuit, known]);
  const currents = useMemo(
    () => restingCurrents(document.circuit, layer, seen, volts).filter((c) => c.through.length > 0),
    [document.circuit, layer, seen, volts],
  );
  if (supplies.length === 0 && currents.length === 0) return null;
  return (
    <ul className="hs-aside-list">
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
