import {
  canChange,
  E_SERIES_NAMES,
  formatWant,
  isPassive,
  judgeReading,
  parseWant,
  plannedParts,
  quantityOf,
  unitOf,
  wantedRange,
  type Drawer,
  type ESeries,
  type Readout,
  type UnitDocument,
  type Want,
} from '@zemble/core';
import { Button, Checkbox, Input, Progress, Select } from 'antd';
import { memo, useState } from 'react';
import { useAnalysed } from '../../unit/analysed.tsx';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { verdictTone } from '../../ui/marks.tsx';
import { useDrawer } from '../drawer/index.ts';
import type { Search } from './use-search.ts';
import styles from './rework.module.css';

const MOST_PROPOSALS = 12;

/** A line of the form: a readout, and what is typed of it; null as long as it is what the readout itself wants. */
interface GoalLine {
  readonly readoutId: string;
  readonly text: string | null;
}

interface Goal {
  readonly readout: Readout;
  readonly text: string;
  readonly want: Want | undefined;
  readonly isUsable: boolean;
}

function goalOf(line: GoalLine, document: UnitDocument): Goal | undefined {
  const readout = document.readouts.find((r) => r.id === line.readoutId);
  if (!readout) return undefined;
  const text = line.text ?? formatWant(readout.want, unitOf(readout, document.readouts));
  const want = parseWant(text, quantityOf(readout, document.readouts));
  return { readout, text, want, isUsable: want !== undefined && wantedRange(want) !== undefined };
}

/** What should come out, what is to stay, and what may be changed for it. */
export const GoalForm = memo(function GoalForm({ search }: { search: Search }) {
  const { document } = useUnitContext();
  const { readoutId, setReadoutId } = useAnalysed();
  const { items } = useDrawer();
  const shown = document.readouts.find((r) => r.id === readoutId) ?? document.readouts[0];
  const [lines, setLines] = useState<readonly GoalLine[] | null>(null);
  const [keep, setKeep] = useState<readonly string[]>([]);
  const [chosen, setChosen] = useState<readonly string[] | null>(null);
  const [series, setSeries] = useState<ESeries>('E24');
  const [isFromDrawer, setFromDrawer] = useState(true);
  if (!shown) {
    return (
      <div className="zb-block">
        <h2>Rework</h2>
        <p className="zb-empty-words">
          Add a readout in the dock below first: it is what a change is measured by.
        </p>
      </div>
    );
  }
  // One goal follows the readout that is shown; several stand for themselves.
  const first = lines?.[0];
  const current: readonly GoalLine[] =
    lines === null || (lines.length === 1 && first!.readoutId !== shown.id)
      ? [{ readoutId: shown.id, text: null }]
      : lines;
  const goals = current.flatMap((line) => goalOf(line, document) ?? []);
  const change = (index: number, line: Partial<GoalLine>) =>
    setLines(current.map((l, i) => (i === index ? { ...l, ...line } : l)));
  const isNamed = (id: string) => goals.some((g) => g.readout.id === id);
  const free = document.readouts.filter((r) => !isNamed(r.id));
  const wanted = document.readouts.filter((r) => wantedRange(r.want));
  const may = chosen ?? suggested(document);
  const isUsable = goals.length > 0 && goals.every((g) => g.isUsable);
  const hasDrawer = items.length > 0;
  const find = () => {
    if (isUsable)
      search.start({
        circuit: document.circuit,
        readouts: document.readouts,
        settings: document.settings,
        layer: 'planned',
        goals: goals.map((g) => ({ readoutId: g.readout.id, want: g.want! })),
        keep: keep.filter((id) => !isNamed(id)),
        may,
        series,
        drawer: drawerFor(isFromDrawer, items),
        withPairs: true,
        most: MOST_PROPOSALS,
      });
  };
  const { state } = search;
  return (
    <form
      className="zb-block"
      onSubmit={(event) => {
        event.preventDefault();
        find();
      }}
    >
      <h2>What should it be</h2>
      {goals.map((goal, i) => {
        const nth = i === 0 ? '' : ` ${i + 1}`;
        return (
          <div key={goal.readout.id}>
            <div className={styles.goal}>
              <Select
                aria-label={`Readout${nth}`}
                value={goal.readout.id}
                onChange={(id: string) => {
                  if (goals.length === 1) setReadoutId(id);
                  change(i, { readoutId: id, text: null });
                }}
                options={document.readouts
                  .filter((r) => r.id === goal.readout.id || !isNamed(r.id))
                  .map((r) => ({ value: r.id, label: r.name }))}
                popupMatchSelectWidth={false}
              />
              <Input
                aria-label={`Wanted value${nth}`}
                className="zb-mono"
                value={goal.text}
                onChange={(event) => change(i, { text: event.target.value })}
                status={goal.want === undefined ? 'error' : ''}
                placeholder="26 dB, < 30 Hz, 8 .. 12 V"
              />
              {goals.length > 1 && (
                <Button
                  type="text"
                  aria-label={`Leave out ${goal.readout.name}`}
                  onClick={() => setLines(current.filter((_, k) => k !== i))}
                >
                  ×
                </Button>
              )}
            </div>
            {goal.want === undefined && (
              <p className="zb-problem">{`"${goal.text}" cannot be read; write it like 26 dB, < 30 Hz or 8 .. 12 V.`}</p>
            )}
          </div>
        );
      })}
      <div className={styles.goalMore}>
        {free.length > 0 && (
          <Button
            size="small"
            onClick={() => setLines([...current, { readoutId: (nextOf(free) ?? free[0])!.id, text: null }])}
          >
            And another
          </Button>
        )}
        {wanted.length > 1 && (
          <Button size="small" onClick={() => setLines(wanted.map((r) => ({ readoutId: r.id, text: null })))}>
            All {wanted.length} wanted
          </Button>
        )}
        {goals.length > 1 && (
          <span className="zb-hint">
            Each is firm; end one with <kbd>wished</kbd> and it only counts.
          </span>
        )}
      </div>
      <h2>By changing</h2>
      <div className={`${styles.goal} ${styles.goalParts}`}>
        <Select
          mode="multiple"
          aria-label="Parts that may change"
          value={[...may]}
          onChange={(refs: string[]) => setChosen(refs)}
          options={plannedParts(document.circuit)
            .filter(canChange)
            .map((p) => ({ value: p.ref }))}
          placeholder="Parts that may change"
        />
        <Select
          aria-label="Series"
          value={series}
          onChange={setSeries}
          options={E_SERIES_NAMES.map((s) => ({ value: s }))}
        />
        {state.is === 'running' ? (
          <Button onClick={search.cancel}>Stop</Button>
        ) : (
          <Button type="primary" htmlType="submit" disabled={!isUsable || may.length === 0}>
            Find values
          </Button>
        )}
      </div>
      <div className={styles.goalMore}>
        <Select
          mode="multiple"
          size="small"
          aria-label="Readouts to keep"
          className={styles.keep}
          value={keep.filter((id) => !isNamed(id))}
          onChange={(ids: string[]) => setKeep(ids)}
          options={free.map((r) => ({ value: r.id, label: r.name }))}
          placeholder="and keep as they are"
          popupMatchSelectWidth={false}
        />
        {hasDrawer && (
          <Checkbox checked={isFromDrawer} onChange={(event) => setFromDrawer(event.target.checked)}>
            from the drawer first
          </Checkbox>
        )}
      </div>
      {state.is === 'running' && (
        <Progress percent={Math.round(state.fraction * 100)} size="small" aria-label="Search progress" />
      )}
      {state.is === 'refused' && (
        <p className="zb-problem" role="alert">
          {state.sentence}
        </p>
      )}
    </form>
  );
});

const drawerFor = (isWanted: boolean, items: Drawer): Drawer | undefined =>
  isWanted && items.length > 0 ? items : undefined;

/** Of readouts not named yet, the first of which something is wanted. */
const nextOf = (free: readonly Readout[]): Readout | undefined => free.find((r) => wantedRange(r.want));

const MOST_SUGGESTED = 4;

/** Parts that are known to be out: they have to be touched anyway. */
function suggested(document: UnitDocument): string[] {
  return document.circuit.parts
    .filter((p) => isPassive(p.kind) && typeof p.found === 'number')
    .filter(
      (p) =>
        verdictTone(judgeReading(p, { value: p.found as number, condition: 'leg lifted' }).kind) === 'out',
    )
    .slice(0, MOST_SUGGESTED)
    .map((p) => p.ref);
}
