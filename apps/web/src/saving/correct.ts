import { exactText, parseSheetLine, parseValue } from '@zemble/core';
import type { Entry } from '../api/act.ts';
import { lineOf } from './change-words.ts';

/** A change as it can be corrected: as it was typed, and what another text makes of it. */
export interface Correctable {
  readonly text: string;
  /** The corrected change, or why the text cannot be read. */
  readonly read: (text: string) => { readonly change: Entry } | { readonly why: string };
}

/** Fields of a unit that are one text. */
const TEXTS = ['name', 'kind', 'notes', 'hazardNotes'] as const;

/** How a change is corrected by typing; null for what is not typed, as a moved symbol. */
export function correctable(change: Entry): Correctable | null {
  switch (change.type) {
    case 'add-note':
      return { text: change.text, read: (text) => ({ change: { ...change, text } }) };
    case 'add-part':
    case 'update-part':
      return {
        text: lineOf(change.part),
        read(text) {
          // The nets that it had keep their names.
          const read = parseSheetLine(text, { ground: '0', parts: [change.part] });
          if (!read.ok) return { why: read.problem.message };
          const { found: _found, ...part } = read.part;
          return { change: { ...change, part: { ...change.part, ...part } as typeof change.part } };
        },
      };
    case 'add-reading': {
      if (typeof change.value !== 'number') return null;
      return {
        text: exactText(change.value, 'number'),
        read(text) {
          const read = parseValue(text, { kind: 'number', purpose: 'reading' });
          return read.ok
            ? { change: { ...change, value: read.readings[0].value } }
            : { why: read.problem.message };
        },
      };
    }
    case 'update-unit': {
      // What keeps a unit from being put away is something temporary in it.
      if (change.values.place === 'away')
        return {
          text: change.values.reason ?? '',
          read: (reason) =>
            reason === ''
              ? { why: 'Say why it is put away although something temporary is in force.' }
              : { change: { ...change, values: { ...change.values, reason } } },
        };
      const [field, ...others] = Object.keys(change.values);
      const text = TEXTS.find((name) => name === field);
      const written = text && change.values[text];
      if (text === undefined || written === undefined || others.length > 0) return null;
      return {
        text: written,
        read: (next) => ({ change: { ...change, values: { [text]: next } } }),
      };
    }
    default:
      return null;
  }
}
