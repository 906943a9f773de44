import {
  formatQuantity,
  formatWant,
  KINDS,
  QUANTITY_KINDS,
  unitOf,
  type Part,
  type Proposal,
  type ValueChange,
} from '@halfsplit/core';
import { memo } from 'react';
import { Button } from 'antd';
import { useAnalysed } from '../../unit/analysed.tsx';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { ToneMark } from '../../ui/marks.tsx';
import { answerText, readoutText } from '../../ui/readout-value.ts';
import type { Search } from './use-search.ts';
import styles from './rework.module.css';

interface ProposalListProps {
  readonly search: Search;
  readonly tried: Proposal | null;
  readonly onTry: (proposal: Proposal | null) => void;
  readonly onPlan: (proposal: Proposal, reason: string) => void;
}

/** Values found, the best first, each with what it does to the rest. */
export const ProposalList = memo(function ProposalList({ search, tried, onTry, onPlan }: ProposalListProps) {
  const { document } = useUnitContext();
  if (search.state.is !== 'found') return null;
  const { proposals, request, isComplete } = search.state;
  const goal = document.readouts.find((r) => r.id === request.goal.readoutId);
  if (!goal) return null;
  const unit = unitOf(goal);
  if (proposals.length === 0) {
    return (
      <div className="hs-block">
        <p role="status">
          {isComplete
            ? 'No value of these parts brings it there. Let other parts change, or ask for less.'
            : 'The time was up before every value was tried, and none of those tried brings it there. Let fewer parts change.'}
        </p>
      </div>
    );
  }
  const parts = new Map(document.circuit.parts.map((p) => [p.ref, p]));
  return (
    <section className="hs-block" aria-label="Values found">
      <h2>Values found</h2>
      <p className="hs-hint">
        {isComplete ? '' : 'The best so far: the time was up before every value was tried. '}
        Choose one to see it everywhere before you plan it.
      </p>
      <ol className={styles.proposals}>
        {proposals.map((p) => {
          const words = p.changes.map((c) => changeWords(c, parts.get(c.ref)!)).join(' and ');
          const isTried = p === tried;
          return (
            <li key={words} className={isTried ? `${styles.proposal} ${styles.proposalOn}` : styles.proposal}>
              <button
                className={`hs-link ${styles.proposalWords}`}
                onClick={() => onTry(isTried ? null : p)}
                aria-pressed={isTried}
              >
                {words}
              </button>
              <span className={p.missBy === 0 ? 'hs-number' : 'hs-number hs-edge'}>
                <ToneMark tone={p.missBy === 0 ? 'in' : 'edge'} /> {readoutText(p.value, unit)}
              </span>
              <Button
                type={isTried ? 'primary' : 'default'}
                onClick={() => onPlan(p, `${goal.name} ${formatWant(request.goal.want, unit)}`)}
              >
                Plan it
              </Button>
              <SideEffects proposal={p} goalId={goal.id} />
            </li>
          );
        })}
      </ol>
    </section>
  );
});

/** Change of another readout worth a word: a tenth of a decibel, or one per cent. */
function isWorthSaying(before: number, after: number, unit: string): boolean {
  const difference = Math.abs(after - before);
  return unit === 'dB' ? difference >= 0.1 : difference > 0.01 * Math.abs(before);
}

function SideEffects({ proposal, goalId }: { proposal: Proposal; goalId: string }) {
  const { document } = useUnitContext();
  const { analysis } = useAnalysed();
  const effects = document.readouts.flatMap((r, i) => {
    const after = proposal.answers[i];
    const before = analysis?.rows.find((row) => row.id === r.id)?.answers.found;
    if (r.id === goalId || !after?.ok || !before?.ok || !isWorthSaying(before.value, after.value, unitOf(r)))
      return [];
    const isHarm = proposal.harms.includes(r.id);
    return [
      {
        id: r.id,
        isHarm,
        isMend: proposal.mends.includes(r.id),
        words: `${r.name} ${answerText(before, unitOf(r))} to ${answerText(after, unitOf(r))}`,
      },
    ];
  });
  if (effects.length === 0)
    return <span className={`hs-dim ${styles.effects}`}>moves nothing else that is read</span>;
  return (
    <span className={styles.effects}>
      {effects.map((e) => (
        <span key={e.id} className={e.isHarm ? 'hs-out' : e.isMend ? 'hs-in' : 'hs-dim'}>
          {e.isHarm && <ToneMark tone="out" />}
          {e.isMend && <ToneMark tone="in" />} {e.words}
          {e.isHarm ? ', out of range' : e.isMend ? ', back in range' : ''}
        </span>
      ))}
    </span>
  );
}

function changeWords(change: ValueChange, part: Part): string {
  const unit = QUANTITY_KINDS[KINDS[part.kind].value ?? 'number'];
  const text = (value: number) => formatQuantity(value, unit, { digits: 4 });
  const made =
    change.made === 'single'
      ? text(change.value)
      : `${change.of.map(text).join(change.made === 'series' ? ' + ' : ' ∥ ')} in ${change.made}`.replace(
          ' ∥ ',
          ' with ',
        );
  return `${change.ref} ${text(change.from)} to ${made}`;
}
