import { asOneEntry } from '../../api/act.ts';
import { unitAct } from '../../api/unit-act.ts';
import type { Hazard, CreateEvidence, IntakeData } from '@zemble/contract';
import { cautionsOf, markedNumber, preparePath, whyTest, rateTest, type ProposedTest } from '@zemble/core';
import { Button } from 'antd';
import { useEffect, useMemo, useState } from 'react';
import { Link } from 'react-router';
import { useSelection } from '../../unit/selection.tsx';
import { newId } from '../../api/new-id.ts';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { useUndoable } from '../../unit/use-undo.ts';
import { OneOf } from '../../ui/one-of.tsx';
import { Keys } from '../../ui/keys.tsx';
import { CircuitPanel } from '../circuit/index.ts';
import { PathBoard } from '../path/index.ts';
import { PhotosPanel } from '../photos/index.ts';
import { isFree } from './answers.ts';
import { Cause } from './cause.tsx';
import { History } from './history.tsx';
import { PartsSearch } from './parts-search.tsx';
import { Question } from './question.tsx';
import { SuspectsList } from './suspects-list.tsx';
import { TestsList } from './tests-list.tsx';
import { CONVICTING, useFind } from './use-find.ts';
import styles from './find.module.css';

const BOARDS = ['Path', 'Photo', 'Circuit'] as const;
type Board = (typeof BOARDS)[number];

/** One question at a time, the most told for a minute; one key records what is seen, and the board shows where it stands. */
export function FindStage() {
  const { unit, document, change } = useUnitContext();
  const { selectPoint } = useSelection();
  const find = useFind();
  const { state, record, cause } = find;
  /** The cause that did not end the search for this person. */
  const [goesOn, setGoesOn] = useState<string | null>(null);
  const isEnded = cause !== null && cause.at !== goesOn;
  const [chosen, setChosen] = useState<string | null>(null);
  const [board, setBoard] = useState<Board>('Path');
  const [selectedBlock, setSelectedBlock] = useState<string | null>(null);
  const [inParts, setInParts] = useState<string | null>(null);
  const path = useMemo(
    () => preparePath(document.path ?? { blocks: [], links: [] }, document.circuit),
    [document.path, document.circuit],
  );
  const offered = state?.offered ?? [];
  const next = state?.next ?? [];
  const current = currentTest(chosen);
  function currentTest(id: string | null): ProposedTest | null {
    const proposed = next.find((n) => n.test.id === id);
    if (proposed) return proposed;
    const test = offered.find((t) => t.id === id);
    if (!test || !state) return next[0] ?? null;
    const rated = rateTest(path, test, state.posterior);
    return { ...rated, why: whyTest(path, rated, state.posterior) };
  }
  const currentAt = current?.test.at ?? null;
  useEffect(() => {
    if (currentAt !== null) selectPoint(currentAt);
  }, [currentAt, selectPoint]);
  // A point chosen on the path or the photo is the next test.
  const choosePoint = (id: string) => {
    selectPoint(id);
    if (offered.some((t) => t.id === id)) setChosen(id);
  };

  const top = state?.suspects[0];
  const topBlock = top && path.blocks[top.block];
  const isConvincing =
    top !== undefined && top.probability >= CONVICTING && (state?.observations.length ?? 0) > 0;
  const convicted = unit.intake.convicted ?? [];
  const isConvicted = convicted.some((c) => c.blockId === topBlock?.id);
  const convicting = (entry: NonNullable<IntakeData['convicted']>[number]) =>
    unitAct(unit, { intake: { ...unit.intake, convicted: [...convicted, entry] } });
  const convictBlock = () => {
    if (!topBlock) return;
    change(
      convicting({
        blockId: topBlock.id,
        kind: topBlock.kind.name,
        words: `${topBlock.name} is guilty: ${top.why}`,
        at: new Date().toISOString(),
      }),
    );
    if (hasParts(topBlock.parts)) setInParts(topBlock.id);
  };
  const hasParts = (refs: readonly string[]) =>
    refs.some((ref) => document.circuit.parts.some((p) => p.ref === ref && p.kind !== 'box'));
  const convictPart = (ref: string, mode: string) => {
    const block = path.blocks.find((b) => b.parts.includes(ref));
    const part = document.circuit.parts.find((p) => p.ref === ref);
    const verdict = convicting({
      ref,
      ...(block ? { blockId: block.id, kind: block.kind.name } : {}),
      words: `${ref}: ${mode}. To be replaced.`,
      at: new Date().toISOString(),
    });
    const marked = part ? markedNumber(part) : null;
    const why = `${ref}: ${mode}; a new one as marked.`;
    const plan =
      marked === null
        ? []
        : [
            {
              type: 'plan-values' as const,
              id: newId(),
              values: { [ref]: marked },
              why,
              purpose: 'repair' as const,
            },
          ];
    // The verdict and what follows from it are one thought.
    change(asOneEntry([verdict, ...plan]));
  };
  const take = (evidence: CreateEvidence) => {
    record(evidence);
    setChosen(null);
  };
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (!isFree(event)) return;
      if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
        const at = Math.max(
          0,
          next.findIndex((n) => n.test.id === current?.test.id),
        );
        const to = next[Math.min(next.length - 1, Math.max(0, at + (event.key === 'ArrowDown' ? 1 : -1)))];
        if (!to) return;
        event.preventDefault();
        setChosen(to.test.id);
      } else if (event.key.toLowerCase() === 'c' && isConvincing && !isConvicted && inParts === null) {
        // The field that opens takes the keyboard; the key that opened it is not typed there.
        event.preventDefault();
        convictBlock();
      }
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  });
  const undoable = useUndoable(unit);
  const isProved = unit.evidence.some(
    (e) =>
      !e.withdrawn &&
      (e.saw === 'good' || e.saw === 'pulsing' || (e.conditions ?? []).includes('probe proved')),
  );
  const ignored = new Map(
    (state?.ignored ?? []).map((i) => [(i.evidence as { id?: string }).id ?? '', i.reason]),
  );
  const partsBlock = inParts === null ? null : path.blocks.find((b) => b.id === inParts);

  return (
    <div className={`zb-split ${styles.find}`}>
      <section className="zb-panel zb-sheet" aria-label="Search">
        <header className="zb-panel-head">
          <h2>Find</h2>
          <span className="zb-dim" role="status">
            {isEnded ? 'the cause is found' : state ? toCome(state.testsToCome, isConvincing) : ''}
          </span>
          <span className="zb-grow" />
          {undoable && (
            <Button
              type="text"
              onClick={() => change({ type: 'undo', sequence: undoable.sequence })}
              title={undoable.summary}
            >
              Take back <Keys keys="Ctrl Z" />
            </Button>
          )}
        </header>
        <div className="zb-scroll" tabIndex={0} role="group" aria-label="Search, scrolls">
          <HazardNote hazards={unit.hazards} />
          {find.sentence !== null && (
            <p className="zb-empty-words">
              {find.sentence} The search works on blocks:{' '}
              <Link to="../trace">type or propose the path in Trace</Link>, even when there is no schematic.
            </p>
          )}
          {state?.contradictions.map((c) => (
            <p key={c.sentence} className="zb-caution" role="alert">
              {c.sentence}
            </p>
          ))}
          {partsBlock ? (
            <PartsSearch
              key={partsBlock.id}
              title={`Which part of ${partsBlock.name}?`}
              refs={partsBlock.parts}
              onRecord={take}
              onRead={find.readPart}
              onConvict={convictPart}
              onBack={() => setInParts(null)}
            />
          ) : (
            state && (
              <>
                {cause && (
                  <Cause
                    cause={cause}
                    onProve={(outcome) => find.prove(cause, outcome)}
                    onGoOn={() => setGoesOn(cause.at)}
                  />
                )}
                {!isEnded && isConvincing && topBlock && (
                  <Conviction
                    name={topBlock.name}
                    share={top.probability}
                    isConvicted={isConvicted}
                    hasParts={hasParts(topBlock.parts)}
                    onConvict={convictBlock}
                    onParts={() => setInParts(topBlock.id)}
                  />
                )}
                {isEnded ? null : current ? (
                  <Question
                    key={current.test.id}
                    test={current.test}
                    why={current.why}
                    isProved={isProved}
                    onRecord={take}
                  />
                ) : (
                  <p className="zb-empty-words">
                    No test that is offered would tell more. Judge what is left part by part, or add a test
                    point in Trace.
                  </p>
                )}
                {!isEnded && (
                  <TestsList
                    next={next}
                    all={offered}
                    forbidden={state?.forbidden ?? []}
                    currentId={current?.test.id ?? null}
                    onChoose={setChosen}
                    school={find.school}
                    onSchool={find.setSchool}
                  />
                )}
                {document.path && (
                  <SuspectsList
                    state={state}
                    path={document.path}
                    views={find.blocks}
                    selected={selectedBlock}
                    onSelect={(id) => {
                      setSelectedBlock(id);
                      setBoard('Path');
                    }}
                  />
                )}
              </>
            )
          )}
          {convicted.length > 0 && <Convicted entries={convicted} />}
        </div>
      </section>
      <section className="zb-panel" aria-label="Board of the search">
        <header className="zb-panel-head">
          <OneOf
            label="Board"
            options={BOARDS.filter((b) => b !== 'Circuit' || document.circuit.parts.length > 0)}
            value={board}
            onChange={setBoard}
          />
          <span className="zb-dim">
            {board === 'Path' ? 'share of the suspicion; choose a number to test there' : ''}
          </span>
        </header>
        {board === 'Path' && (
          <PathBoard
            isBare
            onSelectPoint={choosePoint}
            blocks={find.blocks}
            points={find.points}
            selectedBlock={selectedBlock}
            onSelectBlock={(id) => {
              setSelectedBlock(id);
              const block = path.blocks.find((b) => b.id === id);
              if (block && hasParts(block.parts)) setInParts(id);
            }}
          />
        )}
        {board === 'Photo' && <PhotosPanel isBare points={find.points} onSelectPoint={choosePoint} />}
        {board === 'Circuit' && <CircuitPanel />}
        <div className={styles.historyPanel}>
          <h3>
            Tests made <span className="zb-dim">{unit.evidence.filter((e) => !e.withdrawn).length}</span>
          </h3>
          <div className="zb-scroll" tabIndex={0} role="group" aria-label="Tests made, scrolls">
            <History
              evidence={unit.evidence}
              document={document}
              ignored={ignored}
              onWithdraw={find.withdraw}
              onUncheck={find.uncheck}
              onBlame={find.blameDamage}
              onForget={find.forgetDamage}
            />
          </div>
        </div>
      </section>
    </div>
  );
}

function toCome(count: number, isConvincing: boolean): string {
  if (isConvincing) return 'one block stands out';
  if (count === 0) return 'no test would tell more';
  return `about ${count} more ${count === 1 ? 'test' : 'tests'}`;
}

function HazardNote({ hazards }: { hazards: readonly Hazard[] }) {
  const serious = cautionsOf(hazards.filter((h) => h !== 'battery only' && h !== 'hot parts'));
  if (serious.length === 0) return null;
  return <p className="zb-caution">{serious[0]}</p>;
}

interface ConvictionProps {
  readonly name: string;
  readonly share: number;
  readonly isConvicted: boolean;
  readonly hasParts: boolean;
  readonly onConvict: () => void;
  readonly onParts: () => void;
}

function Conviction({ name, share, isConvicted, hasParts, onConvict, onParts }: ConvictionProps) {
  return (
    <div className="zb-conviction" role="status">
      <p>
        <strong>{name}</strong> holds {Math.round(share * 100)} % of the chance.
      </p>
      {!isConvicted && (
        <Button type="primary" onClick={onConvict}>
          Convict it <Keys keys="C" />
        </Button>
      )}
      {hasParts && <Button onClick={onParts}>Search its parts</Button>}
    </div>
  );
}

function Convicted({ entries }: { entries: NonNullable<IntakeData['convicted']> }) {
  return (
    <div className="zb-block">
      <h2>Convicted</h2>
      <ul>
        {entries.map((e) => (
          <li key={`${e.at}${e.words}`}>
            <span className="zb-out">{e.ref ?? ''}</span> {e.words}
          </li>
        ))}
      </ul>
      <Link to="../rework">Go on in Rework</Link>
    </div>
  );
}
