import type { BeepData } from '@zemble/contract';
import { formNets, pinText, type Traceable } from '../../circuit/continuity/index.ts';
import { problem, type Problem } from '../../base/errors/index.ts';
import { findPin } from '../../circuit/pinout/index.ts';
import { parseLooseLine } from './loose-line.ts';
import type { Part } from '../../circuit/circuit/index.ts';

/** What one line of tracing by continuity says. */
export type TraceLineResult =
  | { readonly ok: true; readonly kind: 'parts'; readonly parts: readonly Part[] }
  | { readonly ok: true; readonly kind: 'beep'; readonly beep: BeepData }
  | { readonly ok: false; readonly problem: Problem };

const GROUND_WORDS = ['gnd', 'ground', 'earth', 'chassis'];
/** Between what is held and what it does not beep with. */
const APART = '#';
/** Between what is held and what it beeps with one of. */
const ONE_OF = '|';

/**
 * Reads one line of tracing by continuity: a part without nets, `R7 47k`, or a beep between pins as they are written anywhere and
 * nets by name: `C3.1 Q2.b`, `U1.8 R9.a C4+`, `tip R1.1`; `U1.4 # gnd` for what does not beep, `C3.1 | Q2.b Q3.b` for what beeps
 * with one of several. A pin's name alone stands for the only part that has it.
 *
 * @returns the parts, the beep with its ends as they are kept, or what could not be understood
 */
export function parseTraceLine(line: string, traced: Traceable): TraceLineResult {
  const words = line.replace(/[#|]/g, ' $& ').trim().split(/\s+/).filter(Boolean);
  if (words.length === 0) return refuse('The line is empty.');
  const isPin = (word: string) => findPin(traced.parts, word).ok;
  const says = words.includes(APART) ? 'apart' : words.includes(ONE_OF) ? 'one of' : 'together';
  if (
    says === 'together' &&
    !words.some((w) => isPin(w) || looksLikePin(w)) &&
    !isOnlyPin(words[0]!, traced)
  ) {
    const read = parseLooseLine(line);
    return read.ok ? { ok: true, kind: 'parts', parts: read.parts } : read;
  }
  if (says !== 'together' && [APART, ONE_OF].indexOf(words[1] ?? '') < 0)
    return refuse(`One pin stands before the "${says === 'apart' ? APART : ONE_OF}": the one that is held.`);
  const ends: string[] = [];
  for (const word of words.filter((w) => w !== APART && w !== ONE_OF)) {
    const read = readEnd(word, traced);
    if (!read.ok) return read;
    if (!ends.includes(read.end)) ends.push(read.end);
  }
  if (ends.length < 2) return refuse(`${words[0]!}: what it beeps with is missing.`);
  return { ok: true, kind: 'beep', beep: { says, ends } };
}

const refuse = (detail: string): { readonly ok: false; readonly problem: Problem } => ({
  ok: false,
  problem: problem('sheet/unreadable', { detail }),
});

const looksLikePin = (word: string): boolean => /^[A-Za-z]+\d+[A-Da-d]?\.[\w+-]+$/.test(word);

/** The parts that have a pin of a name of its own, as the tip of a jack. */
const havingPin = (word: string, { parts }: Traceable): readonly Part[] =>
  word.length < 2
    ? []
    : parts.filter((p) => (p.kind === 'jack' || p.kind === 'box') && Object.hasOwn(p.pins, word));
const isOnlyPin = (word: string, traced: Traceable): boolean => havingPin(word, traced).length === 1;

type EndResult =
  { readonly ok: true; readonly end: string } | { readonly ok: false; readonly problem: Problem };

function readEnd(word: string, traced: Traceable): EndResult {
  if (GROUND_WORDS.includes(word.toLowerCase())) return { ok: true, end: traced.ground };
  const pin = findPin(traced.parts, word);
  if (pin.ok) return { ok: true, end: pinText(pin.ref, pin.pin) };
  if (word.includes('.')) return pin;
  const part = traced.parts.find((p) => p.ref.toUpperCase() === word.toUpperCase());
  if (part) {
    const pins = Object.keys(part.pins);
    return refuse(`${part.ref} alone is no pin: write ${pins.map((p) => `${part.ref}.${p}`).join(', ')}.`);
  }
  const [only, ...more] = havingPin(word, traced);
  if (more.length > 0)
    return refuse(`"${word}" is a pin of ${[only!, ...more].map((p) => p.ref).join(' and ')}: say which.`);
  if (only) return { ok: true, end: pinText(only.ref, word) };
  const made = pinOfMadeName(word, traced);
  if (made !== undefined) return { ok: true, end: made };
  return /^[\w+-]{1,64}$/.test(word)
    ? { ok: true, end: word }
    : refuse(`"${word}" is neither a pin nor a name for a net.`);
}

/** A pin of the net that is shown under a name which nobody has said: what is meant by it is that net. */
function pinOfMadeName(word: string, traced: Traceable): string | undefined {
  const { nets, renamed } = formNets(traced);
  const name = renamed.get(word) ?? word;
  return nets.find((n) => n.name === name && (!n.isNamed || name !== word))?.pins[0];
}

/** The line that reads back as this beep. */
export function formatBeepLine({ says, ends }: BeepData): string {
  const [held, ...over] = ends;
  const between = says === 'apart' ? [APART] : says === 'one of' ? [ONE_OF] : [];
  return [held, ...between, ...over].join(' ');
}
