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
  type ESeries,
  type UnitDocument,
} from '@halfsplit/core';
import { Button, Input, Progress, Select } from 'antd';
import { memo, useState } from 'react';
import { useAnalysed } from '../../unit/analysed.tsx';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { verdictTone } from '../../ui/marks.tsx';
import type { Search } from './use-search.ts';
import styles from './rework.module.css';

const MOST_PROPOSALS = 12;

/** What should come out, and what may be changed for it. */
export const GoalForm = memo(function GoalForm({ search }: { search: Search }) {
  const { document } = useUnitContext();
  const { readoutId, setReadoutId } = useAnalysed();
  const readout = document.readouts.find((r) => r.id === readoutId) ?? document.readouts[0];
  const [typed, setTyped] = useState<{ id: string; text: string } | null>(null);
  const [chosen, setChosen] = useState<readonly string[] | null>(null);
  const [series, setSeries] = useState<ESeries>('E24');
  if (!readout) {
    return (
      <div className="hs-block">
        <h2>Rework</h2>
        <p className="hs-empty-words">
          Add a readout in the dock below first: it is what a change is measured by.
        </p>
      </div>
    );
  }
  const unit = unitOf(readout, document.readouts);
  const text = typed?.id === readout.id ? typed.text : formatWant(readout.want, unit);
  const want = parseWant(text, quantityOf(readout, document.readouts));
  const may = chosen ?? suggested(document);
  const isUsable = want !== undefined && wantedRange(want) !== undefined;
  const find = () => {
    if (!isUsable) return;
    search.start({
      circuit: document.circuit,
      readouts: document.readouts,
      settings: document.settings,
      layer: 'planned',
      goal: { readoutId: readout.id, want },
      may,
      series,
      withPairs: true,
      most: MOST_PROPOSALS,
    });
  };
  const { state } = search;
  return (
    <form
      className="hs-block"
      onSubmit={(event) => {
        event.preventDefault();
        find();
      }}
    >
      <h2>What should it be</h2>
      <div className={styles.goal}>
        <Select
          aria-label="Readout"
          value={readout.id}
          onChange={setReadoutId}
          options={document.readouts.map((r) => ({ value: r.id, label: r.name }))}
          popupMatchSelectWidth={false}
        />
        <Input
          aria-label="Wanted value"
          className="hs-mono"
          value={text}
          onChange={(event) => setTyped({ id: readout.id, text: event.target.value })}
          status={want === undefined ? 'error' : ''}
          placeholder="26 dB, < 30 Hz, 8 .. 12 V"
        />
      </div>
      {want === undefined && (
        <p className="hs-problem">{`"${text}" cannot be read; write it like 26 dB, < 30 Hz or 8 .. 12 V.`}</p>
      )}
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
      {state.is === 'running' && (
        <Progress percent={Math.round(state.fraction * 100)} size="small" aria-label="Search progress" />
      )}
      {state.is === 'refused' && (
        <p className="hs-problem" role="alert">
          {state.sentence}
        </p>
      )}
    </form>
  );
});

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
