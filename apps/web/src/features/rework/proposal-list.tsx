import {
  formatQuantity,
  formatWant,
  KINDS,
  outsideBy,
  plannedParts,
  QUANTITY_KINDS,
  trialOf,
  unitOf,
  type LayerPart,
  type Proposal,
  type Readout,
  type Unit,
  type ValueChange,
} from '@zemble/core';
import type { Step } from '@zemble/contract';
import { memo, useMemo } from 'react';
import { Button } from 'antd';
import { useAnalysed } from '../../unit/analysed.tsx';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { ToneMark } from '../../ui/marks.tsx';
import { answerText, readoutText } from '../../ui/readout-value.ts';
import { BothChannelsBox, useBothChannels } from '../changes/index.ts';
import type { Search } from './use-search.ts';
import styles from './rework.module.css';

interface ProposalListProps {
  readonly search: Search;
  readonly tried: Proposal | null;
  readonly onTry: (proposal: Proposal | null) => void;
  /** @param twin what the other channel gets with it, where that was asked for */
  readonly onPlan: (proposal: Proposal, reason: string, twin: ReadonlyMap<string, number>) => void;
}

/** Values found, the best first, each with what it does to the rest. */
export const ProposalList = memo(function ProposalList({ search, tried, onTry, onPlan }: ProposalListProps) {
  const { document } = useUnitContext();
  const { analysis } = useAnalysed();
  if (search.state.is !== 'found') return null;
  const { proposals, request, isComplete } = search.state;
  const goals = request.goals.flatMap(({ readoutId, want }) => {
    const readout = document.readouts.find((r) => r.id === readoutId);
    return readout ? [{ readout, want, unit: unitOf(readout, document.readouts) }] : [];
  });
  if (goals.length === 0) return null;
  const isThere = goals.every(({ readout, want }) => {
    const now = analysis?.rows.find((row) => row.id === readout.id)?.answers.planned;
    return want.wish !== undefined || (now?.ok === true && outsideBy(now.value, want) === 0);
  });
  const it = goals.length === 1 ? 'it' : 'them';
  const reason = goals.map((g) => `${g.readout.name} ${formatWant(g.want, g.unit)}`).join(', ');
  if (proposals.length === 0) {
    return (
      <div className="zb-block">
        <p role="status">
          {isComplete
            ? `No value of these parts brings ${it} there. Let other parts change, or ask for less.`
            : `The time was up before every value was tried, and none of those tried brings ${it} there. Let fewer parts change.`}
        </p>
      </div>
    );
  }
  // What is proposed may be a part that a planned change adds.
  const parts = new Map(plannedParts(document.circuit).map((p) => [p.ref, p]));
  return (
    <section className="zb-block" aria-label="Values found">
      <h2>Values found</h2>
      <p className="zb-hint">
        {isThere && tried === null && <strong>It is there as it is planned: nothing has to change. </strong>}
        {isComplete ? '' : 'The best so far: the time was up before every value was tried. '}
        Choose one to see it everywhere before you plan it.
      </p>
      <ol className={styles.proposals}>
        {proposals.map((p) => {
          const words = p.changes.map((c) => changeWords(c, parts.get(c.ref))).join(' and ');
          const isTried = p === tried;
          return (
            <li key={words} className={isTried ? `${styles.proposal} ${styles.proposalOn}` : styles.proposal}>
              <button
                className={`zb-link ${styles.proposalWords}`}
                onClick={() => onTry(isTried ? null : p)}
                aria-pressed={isTried}
              >
                {words}
              </button>
              <GoalValues proposal={p} goals={goals} />
              <PlanButton proposal={p} isTried={isTried} onPlan={(twin) => onPlan(p, reason, twin)} />
              <SideEffects proposal={p} goalIds={goals.map((g) => g.readout.id)} isTried={isTried} />
            </li>
          );
        })}
      </ol>
    </section>
  );
});

/** Plans a proposal; where its parts are of one channel of two, for both when that is asked for. */
function PlanButton({
  proposal: { changes },
  isTried,
  onPlan,
}: {
  readonly proposal: Proposal;
  readonly isTried: boolean;
  readonly onPlan: (twin: ReadonlyMap<string, number>) => void;
}) {
  const { document } = useUnitContext();
  const steps = useMemo(() => changes.map(({ ref, value }): Step => ({ do: 'fit', ref, value })), [changes]);
  const both = useBothChannels(document.circuit, steps);
  const plan = () =>
    onPlan(
      new Map(
        both.steps
          .slice(steps.length)
          .flatMap((s) => (s.do === 'fit' && typeof s.value === 'number' ? [[s.ref, s.value]] : [])),
      ),
    );
  return (
    <>
      <Button type={isTried ? 'primary' : 'default'} onClick={plan}>
        Plan it
      </Button>
      <BothChannelsBox {...both} />
    </>
  );
}

interface ShownGoal {
  readonly readout: Readout;
  readonly unit: Unit;
}

/** More goals than this are counted, and only those missed are named. */
const MOST_NAMED = 3;

/** What a proposal makes of the goals: each with its mark, or of many how many are met. */
function GoalValues({
  proposal,
  goals,
}: {
  readonly proposal: Proposal;
  readonly goals: readonly ShownGoal[];
}) {
  const rows = goals.map((goal, i) => ({ ...goal, met: proposal.goals[i]! }));
  const missed = rows.filter((r) => r.met.missBy > 0);
  const isMany = rows.length > MOST_NAMED;
  return (
    <span className={styles.goalValues}>
      {isMany && (
        <span>
          <ToneMark tone={missed.length === 0 ? 'in' : 'edge'} />{' '}
          {`${rows.length - missed.length} of ${rows.length} inside`}
        </span>
      )}
      {(isMany ? missed : rows).map(({ readout, unit, met }) => (
        <span
          key={readout.id}
          className={met.missBy === 0 ? 'zb-number' : 'zb-number zb-edge'}
          title={readout.name}
        >
          {isMany && `${readout.name} `}
          <ToneMark tone={met.missBy === 0 ? 'in' : 'edge'} /> {readoutText(met.value, unit)}
        </span>
      ))}
    </span>
  );
}

/** Change of another readout worth a word: a tenth of a decibel, or one per cent. */
function isWorthSaying(before: number, after: number, unit: string): boolean {
  const difference = Math.abs(after - before);
  return unit === 'dB' ? difference >= 0.1 : difference > 0.01 * Math.abs(before);
}

function SideEffects({
  proposal,
  goalIds,
  isTried,
}: {
  readonly proposal: Proposal;
  readonly goalIds: readonly string[];
  readonly isTried: boolean;
}) {
  const { document } = useUnitContext();
  const { analysis } = useAnalysed();
  const effects = document.readouts.flatMap((r, i) => {
    const after = proposal.answers[i];
    const before = analysis?.rows.find((row) => row.id === r.id)?.answers.found;
    if (
      goalIds.includes(r.id) ||
      !after?.ok ||
      !before?.ok ||
      !isWorthSaying(before.value, after.value, unitOf(r))
    )
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
  return (
    <span className={styles.effects}>
      {effects.length === 0 && <span className="zb-dim">moves nothing else that is read</span>}
      {effects.map((e) => (
        <span key={e.id} className={e.isHarm ? 'zb-out' : e.isMend ? 'zb-in' : 'zb-dim'}>
          {e.isHarm && <ToneMark tone="out" />}
          {e.isMend && <ToneMark tone="in" />} {e.words}
          {e.isHarm ? ', out of range' : e.isMend ? ', back in range' : ''}
        </span>
      ))}
      {proposal.limits.map((sentence) => (
        <span key={sentence} className="zb-out">
          <ToneMark tone="out" /> {sentence}
        </span>
      ))}
      {(isTried ? proposal.changes : []).map((c) => {
        const part = document.circuit.parts.find((p) => p.ref === c.ref);
        return part && <span key={c.ref}>Try first: {trialOf(part, c.from, c.value).sentence}</span>;
      })}
      {proposal.yield && (
        <span className="zb-dim">
          {Math.round(100 * proposal.yield.share)} % of such builds inside. {proposal.yield.advice}
        </span>
      )}
    </span>
  );
}

/** What a value change does; of a part that has gone while it was looked for, by its plain numbers. */
function changeWords(change: ValueChange, part: LayerPart | undefined): string {
  const unit = QUANTITY_KINDS[(part && KINDS[part.kind].value) ?? 'number'];
  const text = (value: number) => formatQuantity(value, unit, { digits: 4 });
  const made =
    change.made === 'single'
      ? text(change.value)
      : `${change.of.map(text).join(change.made === 'series' ? ' + ' : ' with ')} in ${change.made}`;
  return `${change.ref} ${text(change.from)} to ${made}${placeWords(change)}`;
}

/** Where the parts of a change lie, where a drawer was asked. */
function placeWords({ places }: ValueChange): string {
  if (!places) return '';
  const words = places.map((place) => (place === null ? 'to buy' : place === '' ? 'in the drawer' : place));
  return ` (${[...new Set(words)].join(', ')})`;
}
