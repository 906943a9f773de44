import { DownOutlined, EditOutlined, PlusOutlined, UpOutlined } from '@ant-design/icons';
import type { Layer, ReadoutResource, UnitResource } from '@zemble/contract';
import {
  formatWant,
  outsideBy,
  parseValue,
  describeReadout,
  healthOf,
  quantityOf,
  unitOf,
  type Health,
  type Problem,
  type Readout,
  type ReadoutAnswer,
  type ReadoutRow,
  type Unit,
} from '@zemble/core';
import { Button } from 'antd';
import { memo, useMemo, useState, type KeyboardEvent } from 'react';
import { useLocation } from 'react-router';
import { isSlow } from '../../compute/is-slow.ts';
import { newId } from '../../api/new-id.ts';
import { useAnalysed } from '../../unit/analysed.tsx';
import { useLayer } from '../../unit/layer.tsx';
import { useSelection } from '../../unit/selection.tsx';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { LayerMark, LayerWord, ToneMark } from '../../ui/marks.tsx';
import { answerText, readoutText } from '../../ui/readout-value.ts';
import { ChartPanel } from './chart-panel.tsx';
import { ReadoutDialog } from './readout-dialog.tsx';
import styles from './readouts.module.css';

const COLUMNS: readonly Layer[] = ['marked', 'found', 'planned'];
const FOLD_KEY = 'zemble.dock';
/** Stages that come before any number: the dock begins folded there, and is remembered apart. */
const BEFORE_NUMBERS = /\/(intake|find)$/;

/** As it was left; folded at first where the room is needed, on a phone and before there are numbers. */
function useFold(): [isOpen: boolean, fold: () => void] {
  const isBefore = BEFORE_NUMBERS.test(useLocation().pathname);
  const key = isBefore ? `${FOLD_KEY}.before` : FOLD_KEY;
  const [kept, setKept] = useState<Readonly<Record<string, boolean>>>({});
  const stored = localStorage.getItem(key);
  const usual = !isBefore && !matchMedia('(max-width: 900px)').matches;
  const isOpen = kept[key] ?? (stored === null ? usual : stored !== 'folded');
  return [
    isOpen,
    () => {
      localStorage.setItem(key, isOpen ? 'folded' : 'open');
      setKept({ ...kept, [key]: !isOpen });
    },
  ];
}

/** The few numbers that matter, by layer, and the response; foldable, the same in every stage. */
export function ReadoutsDock() {
  const { unit, document, warnings } = useUnitContext();
  const { analysis, why, readoutId, setReadoutId } = useAnalysed();
  /** What is of an earlier circuit is no number of this one. */
  const isOld = why !== null;
  const [isOpen, fold] = useFold();
  const [edited, setEdited] = useState<ReadoutResource | 'new' | null>(null);
  const rows = useMemo(() => new Map(analysis?.rows.map((r) => [r.id, r])), [analysis]);
  const health = useMemo(
    () =>
      healthOf(
        unit.readouts.map(({ id }, i) => {
          const readout = document.readouts[i]!;
          const last = unit.readings.filter((r) => r.readoutId === id && !r.withdrawn).at(-1);
          return {
            readout,
            // A number of an earlier state says nothing of this one.
            answer:
              isOld || (isSlow(readout) && analysis?.isSlowPending !== false)
                ? undefined
                : rows.get(readout.id)?.answers.found,
            bench: typeof last?.value === 'number' ? last.value : null,
          };
        }),
      ),
    [unit, document, rows, isOld, analysis?.isSlowPending],
  );
  return (
    <section className={isOpen ? styles.dock : `${styles.dock} ${styles.dockFolded}`} aria-label="Readouts">
      <button className={styles.dockFold} onClick={fold} aria-expanded={isOpen}>
        {isOpen ? <DownOutlined aria-hidden /> : <UpOutlined aria-hidden />}
        <strong>Readouts</strong>
        <span className="zb-dim">
          {document.readouts.length === 0 ? 'none yet' : healthWords(health, unit, document.readouts)}
        </span>
      </button>
      {isOld && (
        <p className="zb-problem" role="alert">
          This circuit could not be computed: {why} The numbers are of an earlier state.
        </p>
      )}
      {warnings.length > 0 && <Warnings warnings={warnings} />}
      {isOpen && (
        <div className={styles.dockBody}>
          <div
            className={`zb-scroll ${styles.dockTable}`}
            tabIndex={0}
            role="group"
            aria-label="Readouts by layer, scrolls"
          >
            <table className="zb-table">
              <thead>
                <tr>
                  <th>Readout</th>
                  <th className="zb-right">wanted</th>
                  {COLUMNS.map((layer) => (
                    <th key={layer} className="zb-right">
                      <LayerMark layer={layer} /> {layer}
                    </th>
                  ))}
                  <th className="zb-right">bench</th>
                  <th>
                    <Button
                      type="text"
                      icon={<PlusOutlined />}
                      onClick={() => setEdited('new')}
                      aria-label="Add a readout"
                    />
                  </th>
                </tr>
              </thead>
              <tbody>
                {unit.readouts.map((resource, i) => (
                  <ReadoutLine
                    key={resource.id}
                    resource={resource}
                    readout={document.readouts[i]!}
                    row={rows.get(resource.readout.id)}
                    readouts={document.readouts}
                    isPending={isOld || (isSlow(document.readouts[i]!) && analysis?.isSlowPending !== false)}
                    isSelected={resource.readout.id === readoutId}
                    onSelect={setReadoutId}
                    onEdit={setEdited}
                  />
                ))}
              </tbody>
            </table>
            {unit.readouts.length === 0 && (
              <p className="zb-empty-words">
                Readouts are the numbers that matter for this unit: its gain, its bass corner, the voltage at
                a collector. <Button onClick={() => setEdited('new')}>Add the first</Button>
              </p>
            )}
          </div>
          <ChartPanel />
        </div>
      )}
      {edited && <ReadoutDialog edited={edited === 'new' ? null : edited} onClose={() => setEdited(null)} />}
    </section>
  );
}

/** What the layer shown asks too much of, or leaves half done: the first in sight, all of them one after the other by a press. */
function Warnings({ warnings }: { readonly warnings: readonly Problem[] }) {
  const { layer } = useLayer();
  const { selectRef } = useSelection();
  const [at, setAt] = useState(0);
  const shown = warnings[at % warnings.length]!;
  return (
    <p className={`zb-edge ${styles.warnings}`} role="status">
      <LayerWord layer={layer} />
      <button
        className="zb-link"
        title={warnings.map((w) => w.message).join('\n')}
        onClick={() => selectRef(shown.ref ?? null)}
      >
        {shown.message}
      </button>
      {warnings.length > 1 && (
        <Button size="small" type="text" onClick={() => setAt((n) => (n + 1) % warnings.length)}>
          {(at % warnings.length) + 1} of {warnings.length}
        </Button>
      )}
    </p>
  );
}

interface LineProps {
  readonly resource: ReadoutResource;
  readonly readout: Readout;
  readonly row: ReadoutRow | undefined;
  /** All of the unit: a range is of another one. */
  readonly readouts: readonly Readout[];
  /** Its numbers are of an earlier state; new ones are being computed. */
  readonly isPending: boolean;
  readonly isSelected: boolean;
  readonly onSelect: (id: string) => void;
  readonly onEdit: (resource: ReadoutResource) => void;
}

const ReadoutLine = memo(function ReadoutLine(props: LineProps) {
  const { resource, readout, row, readouts, isPending, isSelected, onSelect, onEdit } = props;
  const unit = row?.unit ?? unitOf(readout, readouts);
  const select = () => onSelect(readout.id);
  const sentences = isSelected && !isPending ? sentencesOf(row) : [];
  return (
    <>
      <tr className={isSelected ? 'zb-row-selected' : undefined} onClick={select}>
        <td>
          <button
            className={`zb-link ${styles.readoutName}`}
            onClick={select}
            title={describeReadout(readout)}
          >
            {readout.name}
          </button>
        </td>
        <td className="zb-number zb-dim">{formatWant(readout.want, unit)}</td>
        {COLUMNS.map((layer) => (
          <ValueCell
            key={layer}
            layer={layer}
            unit={unit}
            isPending={isPending}
            readout={readout}
            answer={row?.answers[layer]}
            before={beforeOf(row, layer)}
          />
        ))}
        <BenchCell resource={resource} readout={readout} />
        <td>
          <button
            className="zb-icon"
            onClick={() => onEdit(resource)}
            aria-label={`Change the readout ${readout.name}`}
          >
            <EditOutlined aria-hidden />
          </button>
        </td>
      </tr>
      {sentences.length > 0 && (
        <tr>
          <td colSpan={COLUMNS.length + 4} className={styles.said}>
            <span role="status">{sentences.join(' ')}</span>
          </td>
        </tr>
      )}
    </>
  );
});

/** Why there is no number, or what a number would hide, on the layers that are shown; each sentence once. */
const sentencesOf = (row: ReadoutRow | undefined): string[] => [
  ...new Set(
    COLUMNS.flatMap((layer) => {
      const answer = row?.answers[layer];
      return answer?.ok === false ? [answer.problem.message] : (answer?.beside ?? []);
    }),
  ),
];

const beforeOf = (row: ReadoutRow | undefined, layer: Layer): ReadoutAnswer | undefined =>
  layer === 'found' ? row?.answers.marked : layer === 'planned' ? row?.answers.found : undefined;

/** Difference from the layer before that is worth the eye: a tenth of a decibel, or half a per cent. */
function differs(a: ReadoutAnswer | undefined, b: ReadoutAnswer | undefined, unit: string): boolean {
  if (!a?.ok || !b?.ok) return false;
  const difference = Math.abs(a.value - b.value);
  return unit === 'dB'
    ? difference >= 0.1
    : difference > 0.005 * Math.max(Math.abs(a.value), Math.abs(b.value));
}

interface ValueCellProps {
  readonly layer: Layer;
  readonly unit: Unit;
  /** The number is of an earlier state; the new one is being computed. */
  readonly isPending: boolean;
  readonly readout: Readout;
  readonly answer: ReadoutAnswer | undefined;
  readonly before: ReadoutAnswer | undefined;
}

/** A range breaks between its ends only. */
const EXCEPT_BETWEEN_ENDS = /(?<!…) /g;

const ValueCell = memo(function ValueCell(props: ValueCellProps) {
  const { layer, unit, isPending, readout, answer, before } = props;
  const isOut = answer?.ok === true && outsideBy(answer.value, readout.want) !== 0;
  const isMoved = differs(answer, before, unit);
  const className = `zb-number${isPending ? ` ${styles.pending}` : ''}${isOut ? ' zb-out' : isMoved ? ` zb-${layer}` : ` ${styles.quiet}`}`;
  const isRange = answer?.ok === true && answer.range !== undefined;
  const text = answer ? answerText(answer, unit) : isPending ? '…' : '–';
  return (
    <td
      className={className}
      title={isPending ? 'being computed' : answer && !answer.ok ? answer.problem.message : answer?.beside}
      aria-busy={isPending}
    >
      {isOut && <ToneMark tone="out" />}
      <span key={text} className={isRange ? `${styles.warm} ${styles.range}` : styles.warm}>
        {isRange ? text.replaceAll(EXCEPT_BETWEEN_ENDS, '\u00a0') : text}
      </span>
    </td>
  );
});

/** What the bench says, typed in. */
const BenchCell = memo(function BenchCell({
  resource,
  readout,
}: {
  resource: ReadoutResource;
  readout: Readout;
}) {
  const { unit, document, change } = useUnitContext();
  const [text, setText] = useState<string | null>(null);
  const last = unit.readings.filter((r) => r.readoutId === resource.id && !r.withdrawn).at(-1);
  const quantity = quantityOf(readout, document.readouts);
  const parsed =
    text === null || text.trim() === '' ? null : parseValue(text, { kind: quantity, purpose: 'reading' });
  const onKey = (event: KeyboardEvent) => {
    if (event.key === 'Escape') setText(null);
    if (event.key !== 'Enter') return;
    if (parsed?.ok) {
      const { value } = parsed.readings[0];
      change({
        type: 'add-reading',
        id: newId(),
        readoutId: resource.id,
        seen: 0,
        value,
        condition: 'leg lifted',
        takenAt: new Date().toISOString(),
      });
      setText(null);
    } else if (!parsed) setText(null);
  };
  const shown = last
    ? readoutText(typeof last.value === 'number' ? last.value : null, unitOf(readout, document.readouts))
    : '';
  if (text === null) {
    return (
      <td className="zb-number">
        <button
          className={`zb-link ${styles.benchValue}`}
          onClick={() => setText('')}
          aria-label={`Type what the bench says for ${readout.name}`}
        >
          {shown || <span className="zb-dim">type</span>}
        </button>
      </td>
    );
  }
  return (
    <td className="zb-number">
      <input
        className={styles.benchField}
        value={text}
        autoFocus
        onChange={(event) => setText(event.target.value)}
        onKeyDown={onKey}
        onBlur={() => text.trim() === '' && setText(null)}
        aria-label={`Bench reading of ${readout.name}`}
        aria-invalid={parsed !== null && !parsed.ok}
        title={parsed !== null && !parsed.ok ? parsed.problem.message : undefined}
      />
    </td>
  );
});

/** Where the unit stands, in a few words. */
function healthWords(health: Health, unit: UnitResource, readouts: readonly Readout[]): string {
  const names = (list: readonly Readout[]) => {
    const shown = list.slice(0, SHOWN_NAMES).map((r) => r.name);
    const more = list.length - shown.length;
    return `${shown.join(', ')}${more > 0 ? ` and ${more} more` : ''}`;
  };
  switch (health.kind) {
    case 'nothing wanted':
      return 'no wanted ranges yet';
    case 'computing':
      return 'computing…';
    case 'out': {
      const sign = unitOf(health.readout, readouts);
      const where = health.isBench ? ' on the bench' : '';
      return `${health.readout.name}: ${readoutText(health.value, sign)}${where}, wanted ${formatWant(health.readout.want, sign)}`;
    }
    case 'no value':
      return `no value: ${names(health.readouts)}`;
    case 'not measured':
      return unit.readings.every((r) => r.withdrawn)
        ? 'in range as marked; nothing of it is measured yet'
        : `in range as computed; not measured on the bench: ${names(health.readouts)}`;
    case 'well':
      return 'all in range';
  }
}
const SHOWN_NAMES = 3;
