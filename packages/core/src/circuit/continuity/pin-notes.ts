import type { PartKind } from '@zemble/contract';
import { KINDS, markedNumber, printedText, type Part } from '../circuit/index.ts';
import { findPin } from '../pinout/index.ts';
import { parseValue } from '../../base/quantity/index.ts';

/** What a data sheet has around a pin: "to gnd through 10u: rejects ripple". */
export interface PinNote {
  /** The net or pin that it leads to; undefined for words alone. */
  readonly to?: string;
  /** The value between, as it is written; undefined for a plain connection. */
  readonly through?: string;
  /** What it is for. */
  readonly why: string;
}

/** How a pin's surroundings are beside what the sheet has. */
export interface PinNoteVerdict {
  readonly note: PinNote;
  /** `words`: nothing can be compared. `open`: nothing lies between yet, or nothing of that sort. */
  readonly kind: 'words' | 'as the sheet' | 'other value' | 'open';
  readonly sentence: string;
}

/** A part whose value lies nearer to the sheet's than this share is as the sheet has it (common practice: one step of E12). */
const SAME_VALUE = 0.11;

/** Reads a note: `to NET`, `to NET through VALUE`, each with `: what for`; anything else is words. */
export function readPinNote(text: string): PinNote {
  const [, to, through, why = ''] =
    /^to\s+(\S+?)(?:\s+through\s+(\S+?))?\s*(?::\s*(.*))?$/i.exec(text.trim()) ?? [];
  if (to === undefined) return { why: text.trim() };
  return { to, ...(through === undefined ? {} : { through }), why };
}

interface Surroundings {
  readonly ground: string;
  readonly parts: readonly Part[];
}

/** What lies around a pin of a part, beside what its note says. */
export function judgePinNote(circuit: Surroundings, part: Part, pin: string, text: string): PinNoteVerdict {
  const note = readPinNote(text);
  const { to, through, why } = note;
  const reason = why === '' ? '' : `, which ${why}`;
  if (to === undefined) return { note, kind: 'words', sentence: why };
  const [from, goal] = [part.pins[pin]!, netFor(circuit, to)];
  const asked = through === undefined ? `to ${to}` : `to ${to} through ${through}`;
  const say = (kind: PinNoteVerdict['kind'], found: string): PinNoteVerdict => ({
    note,
    kind,
    sentence: `The sheet has ${asked}${reason}; ${found}.`,
  });
  if (through === undefined)
    return from === goal ? say('as the sheet', 'so it is here') : say('open', 'here it is not');
  const between = circuit.parts.filter((p) => {
    const nets = Object.values(p.pins);
    return p.kind === kindOfValue(through) && nets.includes(from) && nets.includes(goal ?? '');
  });
  const read = between.flatMap((p) => {
    const parsed = parseValue(through, { kind: KINDS[p.kind].value! });
    const marked = markedNumber(p);
    return parsed.ok && marked !== null ? [{ part: p, marked, wanted: parsed.readings[0].value }] : [];
  });
  const [nearest] = [...read].sort((a, b) => off(a) - off(b));
  if (!nearest) return say('open', 'nothing of that sort lies between here');
  const fitted = `${printedText(nearest.part, nearest.part.marked ?? null)} (${nearest.part.ref})`;
  return off(nearest) < SAME_VALUE
    ? say('as the sheet', `${fitted} is fitted`)
    : say('other value', `the maker fitted ${fitted}`);
}

/** The kind of part that a value is of, by its unit or prefix: 10u is a capacitor, 10k a resistor, 1mH a coil. */
function kindOfValue(text: string): PartKind {
  if (/h$/i.test(text)) return 'inductor';
  return /[pnu\u00b5\u03bc]\d*f?$|\df$/i.test(text) ? 'capacitor' : 'resistor';
}

const off = ({ marked, wanted }: { readonly marked: number; readonly wanted: number }): number =>
  Math.abs(Math.log(marked / wanted));

/** The net that a note leads to: ground, a pin of a part, or a net by name; undefined where it is not there. */
function netFor({ ground, parts }: Surroundings, to: string): string | undefined {
  if (/^(?:gnd|ground|earth)$/i.test(to)) return ground;
  const pin = findPin(parts, to);
  if (pin.ok) return pin.net;
  return parts.some((p) => Object.values(p.pins).includes(to)) ? to : undefined;
}
