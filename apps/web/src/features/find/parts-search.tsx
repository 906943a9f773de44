import type { CreateEvidence } from '@zemble/contract';
import {
  formatQuantity,
  HARDLY_TELLS,
  measuringMinutes,
  type Measured,
  type PartGroup,
  type Quantity,
  type VoltageUnit,
} from '@zemble/core';
import { Button, Progress, Space } from 'antd';
import { useMemo, useState } from 'react';
import { useSelection } from '../../unit/selection.tsx';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { keyOf, MeasureQuestion } from './measure-question.tsx';
import { measuredQuantities } from './measured.ts';
import { useDictionary, useTellingReadings } from './use-dictionary.ts';
import styles from './find.module.css';

interface Props {
  readonly title: string;
  readonly refs: readonly string[];
  readonly onRecord: (evidence: CreateEvidence) => void;
  /** A part was read in circuit, the red lead at a net. */
  readonly onRead: (ref: string, value: number | 'open' | 'short', redNet: string) => void;
  readonly onConvict: (ref: string, mode: string) => void;
  readonly onBack: () => void;
}

const SHOWN_GROUPS = 6;
const SHOWN_SHARE = 0.005;
/** One fault with more than this needs no further measurement. */
const PLAIN = 0.95;

/** The suspects are parts now, and the tests are measurements: each is compared with what every fault would make it. */
export function PartsSearch({ title, refs, onRecord, onRead, onConvict, onBack }: Props) {
  const { unit, document } = useUnitContext();
  const { selectNet, selectRef } = useSelection();
  const measured = useMemo(() => measuredQuantities(unit, document), [unit, document]);
  const { search, quantities, fraction, why } = useDictionary(document.circuit, refs, measured);
  const first = search?.groups[0];
  const isStuck = search !== null && (search.next[0]?.bits ?? 0) < HARDLY_TELLS && first !== undefined;
  const { readings, isCurrent } = useTellingReadings(document, isStuck ? first : null);
  const [chosen, setChosen] = useState<string | null>(null);
  const points = unit.path?.testPoints ?? [];
  const proposed = [...(search?.next ?? []), ...readings]
    .map((n) => ({ ...n, worth: n.bits / measuringMinutes(unit, n.quantity) }))
    .sort((a, b) => b.worth - a.worth);
  const own = useMemo(
    () => netsOfParts(document.circuit.parts, refs, document.circuit.ground),
    [document, refs],
  );
  const others = own
    .map((net): Quantity => ({ kind: 'dcv', net }))
    .filter((q) => !proposed.some((n) => keyOf(n.quantity) === keyOf(q)));
  const candidates = [...proposed.map((n) => n.quantity), ...others];
  // A question appears when it is the one: none stands there that another would take the place of.
  const isFinal = why !== null || (search !== null && isCurrent);
  const ask = candidates.find((q) => keyOf(q) === chosen) ?? (isFinal ? candidates[0] : undefined) ?? null;
  const told = ask && proposed.find((n) => keyOf(n.quantity) === keyOf(ask));
  const right =
    ask && search ? search.sound[quantities.findIndex((q) => keyOf(q) === keyOf(ask))] : undefined;
  const isPlain =
    first !== undefined &&
    first.members.length === 1 &&
    first.probability > PLAIN &&
    measured.length > 0 &&
    !search!.next.some((n) => n.isAgain);
  const enter = (value: number | null, unitTyped: VoltageUnit) => {
    if (!ask) return;
    if (ask.kind === 'dcv' || ask.kind === 'level') {
      const at = points.find((t) => t.net === ask.net)?.id ?? ask.net;
      if (value !== null) onRecord({ at, saw: { value, unit: unitTyped } });
    } else {
      const ref = readings.find((r) => keyOf(r.quantity) === keyOf(ask))?.ref;
      if (ref !== undefined) onRead(ref, value ?? 'open', ask.red);
    }
    setChosen(null);
  };
  const step = (by: number) => {
    const at = candidates.findIndex((q) => q === ask);
    const next = candidates[Math.min(candidates.length - 1, Math.max(0, at + by))];
    if (!next) return;
    setChosen(keyOf(next));
    if (next.kind === 'dcv' || next.kind === 'level') selectNet(next.net);
  };
  return (
    <div className={styles.question}>
      <p className={styles.partsTitle}>
        <Button size="small" onClick={onBack}>
          Back to the blocks
        </Button>{' '}
        <strong>{title}</strong>
      </p>
      {isPlain && (
        <p className="zb-in" role="status">
          One fault explains everything measured; nothing more has to be measured.
        </p>
      )}
      {ask && (
        <MeasureQuestion
          key={keyOf(ask)}
          ask={ask}
          reading={readings.find((r) => keyOf(r.quantity) === keyOf(ask))}
          told={told ?? undefined}
          right={right}
          onEnter={enter}
          onStep={step}
          onBegin={() => setChosen(keyOf(ask))}
        />
      )}
      {!ask && !isFinal && <p className="zb-empty-words">Working out which measurement tells most…</p>}
      {why !== null && (
        <p className="zb-problem" role="alert">
          The faults could not be simulated: {why}
        </p>
      )}
      {fraction !== null && (
        <Progress percent={Math.round(fraction * 100)} size="small" aria-label="Faults simulated" />
      )}
      {search && (
        <table className="zb-table zb-suspects">
          <thead>
            <tr>
              <th>Part and fault</th>
              <th className="zb-right">chance</th>
              <th aria-label="Actions" />
            </tr>
          </thead>
          <tbody>
            {search.groups
              .filter((g) => g.probability >= SHOWN_SHARE)
              .slice(0, SHOWN_GROUPS)
              .map((g) => (
                <GroupRow
                  key={g.members.map((m) => `${m.ref} ${m.mode}`).join()}
                  group={g}
                  onSelect={selectRef}
                  onConvict={onConvict}
                />
              ))}
            {search.nothingWrong > 0.02 && (
              <tr>
                <td className="zb-dim">nothing that a direct voltage shows</td>
                <td className="zb-number">{Math.round(search.nothingWrong * 100)} %</td>
                <td />
              </tr>
            )}
            {search.somethingElse > 0.02 && (
              <tr>
                <td className="zb-dim">something else: another fault, two at once, a wrong reading</td>
                <td className="zb-number">{Math.round(search.somethingElse * 100)} %</td>
                <td />
              </tr>
            )}
          </tbody>
        </table>
      )}
      {search?.isUnexplained && (
        <p className="zb-caution" role="status">
          No fault known here explains {measured.map(measuredWords).join(' and ')} together
          {search.next.some((n) => n.isAgain) ? ': one of them read once more would tell.' : '.'}
        </p>
      )}
      {measured.length > 0 && <p className="zb-dim">Compared: {measured.map(measuredWords).join(', ')}.</p>}
      {search && search.unexplained.length > 0 && (
        <p className="zb-caution">
          The likeliest fault does not explain{' '}
          {search.unexplained.map((i) => measuredWords(measured[i]!)).join(', ')}: measure it again, or two
          parts have failed.
        </p>
      )}
    </div>
  );
}

/** One measurement as it is compared: "c2 4.1 V", "out 240 mV rms", "a to b 4.7 kohm". */
function measuredWords({ quantity, value }: Measured): string {
  if (quantity.kind === 'dcv') return `${quantity.net} ${formatQuantity(value ?? 0, 'V', { digits: 3 })}`;
  if (quantity.kind === 'level')
    return `${quantity.net} ${formatQuantity((value ?? 0) / Math.SQRT2, 'V', { digits: 3 })} rms`;
  const unit = quantity.kind === 'cap' ? 'F' : quantity.kind === 'ohm' ? 'ohm' : 'V';
  const shown = value === null ? 'open' : formatQuantity(value, unit, { digits: 3 });
  return `${quantity.red} to ${quantity.black} ${shown}`;
}

function GroupRow({
  group,
  onSelect,
  onConvict,
}: {
  group: PartGroup;
  onSelect: (ref: string) => void;
  onConvict: (ref: string, mode: string) => void;
}) {
  const [first, ...others] = group.members;
  // Of parts that are not told apart, whoever has looked at them says which it is.
  const parts = group.members.filter((m, i, all) => all.findIndex((o) => o.ref === m.ref) === i).slice(0, 3);
  return (
    <tr onClick={() => onSelect(first!.ref)}>
      <td>
        <strong className="zb-mono">{first!.ref}</strong> {first!.mode}
        {others.length > 0 && (
          <span className="zb-dim">
            {' '}
            or{' '}
            {others
              .slice(0, 3)
              .map((m) => `${m.ref} ${m.mode}`)
              .join(', ')}
            {others.length > 3 && ` and ${others.length - 3} more`}: not told apart yet
          </span>
        )}
      </td>
      <td className="zb-number">{Math.round(group.probability * 100)} %</td>
      <td className="zb-right">
        <Space.Compact size="small">
          {parts.map((m) => (
            <Button
              key={m.ref}
              onClick={(e) => {
                e.stopPropagation();
                onConvict(m.ref, m.mode);
              }}
              aria-label={`Convict ${m.ref}`}
            >
              {parts.length > 1 ? m.ref : 'Convict'}
            </Button>
          ))}
        </Space.Compact>
      </td>
    </tr>
  );
}

function netsOfParts(
  parts: readonly { readonly ref: string; readonly pins: Readonly<Record<string, string>> }[],
  refs: readonly string[],
  ground: string,
): string[] {
  const own = new Set(refs);
  return [...new Set(parts.filter((p) => own.has(p.ref)).flatMap((p) => Object.values(p.pins)))].filter(
    (n) => n !== ground,
  );
}
