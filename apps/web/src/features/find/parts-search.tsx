import type { CreateEvidence } from '@halfsplit/contract';
import {
  formatQuantity,
  parseValue,
  toneHzOf,
  voltageWords,
  type Measured,
  type PartGroup,
  type PartSearch,
  type Quantity,
} from '@halfsplit/core';
import { Button, Progress, Space } from 'antd';
import { useMemo, useRef, useState } from 'react';
import { useUnitContext } from '../../app/unit-context.tsx';
import { Keys } from '../../ui/keys.tsx';
import { measuredQuantities } from './measured.ts';
import { useDictionary } from './use-dictionary.ts';

interface Props {
  readonly title: string;
  readonly refs: readonly string[];
  readonly onRecord: (evidence: CreateEvidence) => void;
  readonly onConvict: (ref: string, mode: string) => void;
  readonly onBack: () => void;
}

const SHOWN_GROUPS = 6;
const SHOWN_SHARE = 0.005;
/** One fault with more than this needs no further measurement. */
const PLAIN = 0.95;
/** A net without a test point has to be found on the board first: it takes about twice as long. */
const UNMARKED_MINUTES = 2;

/** The suspects are parts now, and the tests are voltages: each is compared with what every fault would make it. */
export function PartsSearch({ title, refs, onRecord, onConvict, onBack }: Props) {
  const { unit, document, analysis, selectNet, selectRef } = useUnitContext();
  const measured = useMemo(() => measuredQuantities(unit, document), [unit, document]);
  const { search, fraction } = useDictionary(document.circuit, refs, measured);
  const [chosen, setChosen] = useState<string | null>(null);
  const [text, setText] = useState('');
  const field = useRef<HTMLInputElement>(null);
  const own = useMemo(
    () => netsOfParts(document.circuit.parts, refs, document.circuit.ground),
    [document, refs],
  );
  const told = new Map((search?.next ?? []).map((n) => [netOf(n.quantity), n]));
  const candidates = [...own].sort((a, b) => (told.get(b)?.bits ?? 0) - (told.get(a)?.bits ?? 0));
  const best = bestNet(search?.next ?? [], unit.path?.testPoints ?? []) ?? candidates[0] ?? null;
  const net = chosen ?? best;
  const first = search?.groups[0];
  const isPlain =
    first !== undefined && first.members.length === 1 && first.probability > PLAIN && measured.length > 0;
  const volts = analysis?.layers.marked.volts;
  const point = unit.path?.testPoints?.find((t) => t.net === net);
  const { plain, unit: typed } = voltageWords(text);
  const parsed = text.trim() === '' ? null : parseValue(plain, { kind: 'voltage', purpose: 'reading' });
  const toneHz = toneHzOf(document.circuit);
  const enter = () => {
    if (net === null || !parsed?.ok) return;
    onRecord({ at: point?.id ?? net, saw: { value: parsed.readings[0].value, unit: typed } });
    setText('');
    setChosen(null);
  };
  const step = (by: number) => {
    const list = [...new Set([best, ...candidates])].filter((n) => n !== null);
    const at = Math.max(0, list.indexOf(net!));
    const next = list[Math.min(list.length - 1, Math.max(0, at + by))]!;
    setChosen(next);
    selectNet(next);
  };
  return (
    <div className="hs-question">
      <p className="hs-parts-title">
        <Button size="small" onClick={onBack}>
          Back to the blocks
        </Button>{' '}
        <strong>{title}</strong>
      </p>
      {isPlain && (
        <p className="hs-in" role="status">
          One fault explains everything measured; nothing more has to be measured.
        </p>
      )}
      {net !== null && (
        <>
          <p className="hs-question-words">
            What is the direct voltage at {point ? `${point.name}, net ${net}` : `net ${net}`}?
          </p>
          <p className="hs-dim">
            {told.get(net) ? `It tells ${told.get(net)!.bits.toFixed(2)} bit: ${told.get(net)!.why}. ` : ''}
            {volts?.[net] !== undefined && (
              <>
                Right would be{' '}
                <span className="hs-mono">{formatQuantity(volts[net], 'V', { digits: 3 })}</span>, computed as
                marked.
              </>
            )}
            {toneHz !== null && (
              <>
                {' '}
                With {formatQuantity(toneHz, 'Hz')} going in, a level counts too:{' '}
                <span className="hs-mono">240mV rms</span>.
              </>
            )}
          </p>
          <div className="hs-answers">
            <input
              ref={field}
              className="hs-answer-field hs-answer-wide"
              value={text}
              autoFocus
              onChange={(e) => setText(e.target.value)}
              onKeyDown={(e) => {
                if (e.key === 'Enter') enter();
                if (text === '' && (e.key === 'ArrowDown' || e.key === 'ArrowUp')) {
                  e.preventDefault();
                  step(e.key === 'ArrowDown' ? 1 : -1);
                }
              }}
              placeholder="volts"
              aria-label={`Voltage at ${net}`}
              aria-invalid={parsed !== null && !parsed.ok}
              inputMode="decimal"
            />
            <Button type="primary" className="hs-tall" onClick={enter} disabled={!parsed?.ok}>
              Record <Keys keys="Enter" />
            </Button>
          </div>
          {parsed !== null && !parsed.ok && <p className="hs-refused">{parsed.problem.message}</p>}
        </>
      )}
      {fraction !== null && (
        <Progress percent={Math.round(fraction * 100)} size="small" aria-label="Faults simulated" />
      )}
      {search && (
        <table className="hs-table hs-suspects">
          <thead>
            <tr>
              <th>Part and fault</th>
              <th className="hs-right">chance</th>
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
                <td className="hs-dim">nothing that a direct voltage shows</td>
                <td className="hs-number">{Math.round(search.nothingWrong * 100)} %</td>
                <td />
              </tr>
            )}
          </tbody>
        </table>
      )}
      {measured.length > 0 && <p className="hs-dim">Compared: {measured.map(measuredWords).join(', ')}.</p>}
      {search && search.unexplained.length > 0 && (
        <p className="hs-caution">
          The likeliest fault does not explain{' '}
          {search.unexplained.map((i) => measuredWords(measured[i]!)).join(', ')}: measure it again, or two
          parts have failed.
        </p>
      )}
    </div>
  );
}

/** The net that tells most a minute. */
function bestNet(
  next: PartSearch['next'],
  points: readonly { readonly net?: string | undefined; readonly minutes?: number | undefined }[],
): string | null {
  const worth = (n: PartSearch['next'][number]) =>
    n.bits / (points.find((t) => t.net === netOf(n.quantity))?.minutes ?? UNMARKED_MINUTES);
  const [first] = next.filter((n) => netOf(n.quantity) !== null).sort((a, b) => worth(b) - worth(a));
  return first ? netOf(first.quantity) : null;
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

const netOf = (q: Quantity): string | null => (q.kind === 'dcv' ? q.net : null);

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
        <strong className="hs-mono">{first!.ref}</strong> {first!.mode}
        {others.length > 0 && (
          <span className="hs-dim">
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
      <td className="hs-number">{Math.round(group.probability * 100)} %</td>
      <td className="hs-right">
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
