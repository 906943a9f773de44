import type { CreateEvidence } from '@zemble/contract';
import {
  CONDITIONS,
  fuseOut,
  parseValue,
  preparePath,
  probePlaces,
  temporaryFor,
  type Test,
} from '@zemble/core';
import { Button, Checkbox, Select, type RefSelectProps } from 'antd';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { Keys } from '../../ui/keys.tsx';
import { StillOut, useLedger } from '../changes/index.ts';
import { usePath, usePointNames } from '../path/index.ts';
import { answersFor, isFree } from './answers.ts';
import styles from './find.module.css';

const PLAIN_CONDITIONS = ['wiggled', 'warm', 'cold', 'unloaded', 'dummy load'] as const;

/** What shows that the probe works, by what is to be found with it. */
const PROOFS: Readonly<Record<Test['carries'], string>> = {
  audio: 'touch it to the tone',
  supply: 'touch it to a battery or a voltage that you know',
  control: 'touch it to a battery or a voltage that you know',
  clock: 'touch it to a clock that runs, or to a supply: it must show',
  data: 'touch it to a line that pulses, or to a supply: it must show',
};

interface Props {
  readonly test: Test;
  readonly why: string;
  /** A first bad finding counts less until the probe is proved. */
  readonly isProved: boolean;
  readonly onRecord: (evidence: CreateEvidence) => void;
}

/** One test: its question first, then one key for what is seen. Digits begin a measured number. */
export function Question({ test, why, isProved, onRecord }: Props) {
  const { path } = usePath();
  const { document } = useUnitContext();
  const { numberOf } = usePointNames();
  const [chosen, setConditions] = useState<readonly string[]>([]);
  const standing = useLedger().flatMap((entry) => (entry.condition === undefined ? [] : [entry.condition]));
  // What is on the ledger is so for every test until it is back.
  const conditions = [...new Set([...standing, ...chosen])];
  const made = useTemporary(test, chosen);
  const [number, setNumber] = useState<string | null>(null);
  const field = useRef<HTMLInputElement>(null);
  const blockField = useRef<RefSelectProps>(null);
  const answers = answersFor(test);
  const net = path?.testPoints?.find((t) => t.id === test.at)?.net;
  const touched = net === undefined ? undefined : probePlaces(document.circuit.parts, net)[0]?.words;
  const isPoint = (path?.testPoints ?? []).some((t) => t.id === test.at);
  const parsed =
    number === null || number.trim() === ''
      ? null
      : parseValue(number, { kind: 'voltage', purpose: 'reading' });
  const send = (saw: CreateEvidence['saw'], more: readonly string[] = []) => {
    const all = [...conditions, ...more, ...(test.conditions ?? [])];
    onRecord({
      at: test.at,
      saw,
      ...(test.injectedAt === undefined ? {} : { injectedAt: test.injectedAt }),
      ...(all.length > 0 ? { conditions: [...new Set(all)] } : {}),
    });
    setConditions([]);
    setNumber(null);
  };
  const toggle = (condition: string) =>
    setConditions((now) =>
      now.includes(condition) ? now.filter((c) => c !== condition) : [...now, condition],
    );
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (!isFree(event) || event.repeat) return;
      const answer = answers.find((a) => a.key === event.key.toLowerCase());
      if (answer) {
        event.preventDefault();
        send(answer.saw);
      } else if (/^[\d.-]$/.test(event.key) && test.how === 'trace') {
        event.preventDefault();
        setNumber(event.key);
        field.current?.focus();
      } else if (event.key.toLowerCase() === 'b' && !isProved) {
        toggle(CONDITIONS.probeProved);
      }
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  });
  const probeProved = conditions.includes(CONDITIONS.probeProved);
  const disconnected = chosen.find((c) => c.startsWith(CONDITIONS.disconnected));
  return (
    <div className={styles.question}>
      <p className={styles.questionWords}>
        {isPoint && <span className={styles.questionPoint}>{numberOf(test.at)}</span>}
        {test.question}
      </p>
      {touched !== undefined && test.how === 'trace' && <p>Touch {touched}.</p>}
      <p className="zb-dim">{why}</p>
      {!isProved && test.how !== 'check' && (
        <p className={styles.probeNote}>
          Prove the probe first: {PROOFS[test.carries]}.{' '}
          <Checkbox checked={probeProved} onChange={() => toggle(CONDITIONS.probeProved)}>
            it works
          </Checkbox>{' '}
          <Keys keys="B" />
        </p>
      )}
      <div className="zb-answers">
        {answers.map((a) => (
          <button key={a.key} className={styles.answer} onClick={() => send(a.saw)} aria-keyshortcuts={a.key}>
            {a.word} <Keys keys={a.key.toUpperCase()} />
          </button>
        ))}
        {test.how === 'trace' && (
          <input
            ref={field}
            className={styles.answerField}
            value={number ?? ''}
            onChange={(e) => setNumber(e.target.value)}
            onKeyDown={(e) => {
              if (e.key === 'Enter' && parsed?.ok) {
                send({ value: parsed.readings[0].value, unit: 'V' });
                e.currentTarget.blur();
              }
              if (e.key === 'Escape') {
                setNumber(null);
                e.currentTarget.blur();
              }
            }}
            onBlur={() => number?.trim() === '' && setNumber(null)}
            placeholder="volts"
            aria-label="Measured voltage"
            aria-invalid={parsed !== null && !parsed.ok}
            inputMode="decimal"
          />
        )}
      </div>
      {parsed !== null && !parsed.ok && (
        <p className="zb-refused" role="alert">
          {parsed.problem.message}
        </p>
      )}
      {test.how !== 'check' && (
        <div className={styles.conditions}>
          {PLAIN_CONDITIONS.map((c) => (
            <button
              key={c}
              className={styles.chip}
              aria-pressed={conditions.includes(c)}
              disabled={standing.includes(c)}
              title={standing.includes(c) ? 'It is on the ledger: so it is until it is back' : undefined}
              onClick={() => toggle(c)}
            >
              {c}
            </button>
          ))}
          <Select
            size="small"
            allowClear
            value={disconnected ?? null}
            placeholder="block disconnected"
            aria-label="Block disconnected"
            popupMatchSelectWidth={false}
            options={(document.path?.blocks ?? []).map((b) => ({
              value: `${CONDITIONS.disconnected}${b.id}`,
              label: b.name ?? b.id,
            }))}
            ref={blockField}
            onChange={(value: string | undefined) => {
              setConditions((now) => [
                ...now.filter((c) => !c.startsWith(CONDITIONS.disconnected)),
                ...(value === undefined ? [] : [value]),
              ]);
              // The next key answers the question.
              blockField.current?.blur();
            }}
          />
          {chosen.length > 0 && (
            <Button size="small" type="text" onClick={() => setConditions([])}>
              none
            </Button>
          )}
        </div>
      )}
      {standing.length > 0 && (
        <p className="zb-dim">
          Still so, by the ledger:{' '}
          {standing.map((c) => conditionWords(c, document.path?.blocks ?? [])).join(', ')}.
        </p>
      )}
      <StillOut made={made} />
    </div>
  );
}

/** A condition by the name of its block. */
const conditionWords = (
  condition: string,
  blocks: readonly { readonly id: string; readonly name?: string | undefined }[],
) => {
  if (!condition.startsWith(CONDITIONS.disconnected)) return condition;
  const id = condition.slice(CONDITIONS.disconnected.length);
  return `${blocks.find((b) => b.id === id)?.name ?? id} disconnected`;
};

/** What a test leaves behind that must come back: by its conditions, or a fuse that is out to be measured. */
function useTemporary(test: Test, chosen: readonly string[]) {
  const { document } = useUnitContext();
  return useMemo(() => {
    const path = preparePath(document.path ?? { blocks: [], links: [] }, document.circuit);
    const block = path.blocks.find((b) => b.id === test.at);
    if (test.how === 'check' && block?.kind.name === 'fuse') return fuseOut(block.parts, document.circuit);
    return (
      [...chosen, ...(test.conditions ?? [])]
        .map((c) => temporaryFor(c, path, document.circuit))
        .find((t) => t !== null) ?? null
    );
  }, [test, chosen, document]);
}
