import { DeleteOutlined, PushpinOutlined } from '@ant-design/icons';
import type { SheetPart } from '@zemble/contract';
import { findPin, judgePinNote, probePlace, usualSurroundings } from '@zemble/core';
import { useState } from 'react';
import { useUnitContext } from '../../unit/unit-context.tsx';
import styles from './circuit.module.css';

/** What the data sheet has around the pins of a part, and where the maker did otherwise; a line adds one. */
export function PinNotes({ refName }: { refName: string }) {
  const { unit, document, change } = useUnitContext();
  const [line, setLine] = useState('');
  const [why, setWhy] = useState<string | null>(null);
  const { circuit } = document;
  const part = circuit.parts.find((p) => p.ref === refName);
  const resource = unit.parts.find((p) => p.part.ref === refName);
  if (!part || !resource) return null;
  const notes = part.pinNotes ?? {};
  const usual = usualSurroundings(part);
  const write = (pinNotes: Readonly<Record<string, string>>) =>
    change({
      type: 'update-part',
      partId: resource.id,
      seen: resource.version,
      part: { ...resource.part, pinNotes } as SheetPart,
    });
  const add = () => {
    const [, name = '', text = ''] = /^(\S+)\s+(.+)$/.exec(line.trim()) ?? [];
    const found = findPin(circuit.parts, name.includes('.') ? name : `${refName}.${name}`);
    if (text === '')
      return setWhy('A pin first, then what the sheet has: 7 to gnd through 10u: rejects ripple');
    if (!found.ok) return setWhy(found.problem.message);
    if (found.ref !== refName) return setWhy(`That pin is of ${found.ref}: choose it first.`);
    write({ ...notes, [found.pin]: text });
    setLine('');
    setWhy(null);
  };
  return (
    <div className={styles.pinNotes}>
      <h4>Data sheet</h4>
      <ul>
        {Object.entries(notes).map(([pin, text]) => {
          const { kind, sentence } = judgePinNote(circuit, part, pin, text);
          return (
            <li key={pin} className={kind === 'other value' ? 'zb-edge' : undefined}>
              <span>
                <strong>{probePlace(part, pin).short}</strong>: {sentence}
              </span>
              <button
                className="zb-icon"
                aria-label={`Take the note of ${probePlace(part, pin).short} off`}
                onClick={() =>
                  write(Object.fromEntries(Object.entries(notes).filter(([name]) => name !== pin)))
                }
              >
                <DeleteOutlined aria-hidden />
              </button>
            </li>
          );
        })}
      </ul>
      {Object.keys(usual.notes).length > 0 && (
        <ul aria-label={`Usual around ${refName}, from ${usual.origin}`}>
          {Object.entries(usual.notes).map(([pin, text]) => {
            if (part.pins[pin] === undefined || notes[pin] !== undefined) return null;
            const { kind, sentence } = judgePinNote(circuit, part, pin, text);
            return (
              <li key={pin} className={kind === 'other value' ? 'zb-edge' : undefined} title={usual.origin}>
                <span>
                  <strong>{probePlace(part, pin).short}</strong>: {sentence}
                </span>
                <button
                  className="zb-icon"
                  aria-label={`Keep the usual note of ${probePlace(part, pin).short} with the part`}
                  onClick={() => write({ ...notes, [pin]: text })}
                >
                  <PushpinOutlined aria-hidden />
                </button>
              </li>
            );
          })}
        </ul>
      )}
      <input
        value={line}
        onChange={(event) => {
          setLine(event.target.value);
          setWhy(null);
        }}
        onKeyDown={(event) => event.key === 'Enter' && add()}
        placeholder="7 to gnd through 10u: rejects ripple"
        aria-label="What the data sheet has at a pin"
        spellCheck={false}
      />
      {why !== null && (
        <p className="zb-refused" role="alert">
          {why}
        </p>
      )}
    </div>
  );
}
