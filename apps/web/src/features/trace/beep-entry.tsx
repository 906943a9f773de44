import { beepSentence, parseTraceLine, partWords, type Part } from '@zemble/core';
import { useMemo, useRef, type KeyboardEvent } from 'react';
import { Keys } from '../../ui/keys.tsx';
import { TypedLine } from '../../ui/typed-line.tsx';
import { useTypedLine } from '../../ui/use-typed-line.ts';
import { answerKeys } from './answer-keys.ts';
import type { Beeps } from './use-beeps.ts';

interface Props {
  readonly beeps: Beeps;
  readonly onParts: (parts: readonly Part[]) => void;
}

/** The field in which parts and beeps are typed; while it is empty, one key answers what is asked. */
export function BeepEntry({ beeps, onParts }: Props) {
  const { traced, nets } = beeps;
  const { line, setLine, isRefused, refuse } = useTypedLine();
  const field = useRef<HTMLInputElement>(null);
  const read = useMemo(() => (line.trim() === '' ? null : parseTraceLine(line, traced)), [line, traced]);
  const double =
    read?.ok === true && read.kind === 'parts'
      ? read.parts.find((part) => traced.parts.some((p) => p.ref === part.ref))
      : undefined;
  const commit = () => {
    if (!read) return;
    if (!read.ok || double) {
      refuse();
      return;
    }
    if (read.kind === 'parts') onParts(read.parts);
    else beeps.record(read.beep);
    setLine('');
  };
  const onKey = (event: KeyboardEvent<HTMLInputElement>) => {
    if (event.key === 'Enter' && line.trim() !== '') {
      event.preventDefault();
      commit();
    } else if (event.key === 'Escape') {
      setLine('');
    } else if (line === '' && !event.ctrlKey && !event.metaKey && !event.altKey) {
      const answer = answerKeys(beeps.next.question)[event.key];
      if (!answer || event.repeat) return;
      event.preventDefault();
      if (answer === 'pass') beeps.pass(beeps.next.question!.hold);
      else beeps.record(...answer);
    }
  };
  const nowOne = read?.ok === true && read.kind === 'beep' ? netsTouched(nets, read.beep.ends) : [];
  return (
    <TypedLine
      field={field}
      label="Type a part or what beeps"
      placeholder="C3.1 Q2.b"
      line={line}
      onLine={setLine}
      onKeyDown={onKey}
      isRefused={isRefused}
      // Under a thumb the answers are pressed, and a keyboard would cover them.
      isFirst={!window.matchMedia('(pointer: coarse)').matches}
      note={
        read === null ? (
          <>
            A part without nets, <span className="zb-mono">R7 47k</span>; what beeps,{' '}
            <span className="zb-mono">C3.1 Q2.b</span>; what does not,{' '}
            <span className="zb-mono">U1.4 # gnd</span>. <Keys keys="Enter" />
          </>
        ) : !read.ok ? (
          read.problem.message
        ) : double ? (
          `There is a part ${double.ref} already: give this one another designator, or change it under Parts.`
        ) : read.kind === 'parts' ? (
          <strong>{read.parts.map(partWords).join('; ')}</strong>
        ) : (
          <>
            <strong>{beepSentence(read.beep)}</strong>
            {read.beep.says === 'together' && nowOne.length > 1 && ` Joins ${nowOne.join(', ')}.`}
          </>
        )
      }
    />
  );
}

/** Nets that ends are on now, each once. */
function netsTouched(nets: Beeps['nets'], ends: readonly string[]): string[] {
  const names = ends.map((end) => {
    const dot = end.indexOf('.');
    return nets.pins.get(end.slice(0, dot))?.[end.slice(dot + 1)] ?? end;
  });
  return [...new Set(names)];
}
