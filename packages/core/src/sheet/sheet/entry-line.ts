import { SAW, type SawWord } from '@zemble/contract';
import { KINDS, markedNumber, netsOf, type Part, type UnitDocument } from '../../circuit/circuit/index.ts';
import { problem, type Problem } from '../../base/errors/index.ts';
import { aspectsOf, bareAspect, type Aspect } from '../../bench/judge/index.ts';
import { findPin } from '../../circuit/pinout/index.ts';
import { meterWord, parseValue, type QuantityKind } from '../../base/quantity/index.ts';

/** What one line of the entry field says. */
export type Entry =
  /** A reading of a part, with its ESR where one was typed. */
  | {
      readonly kind: 'part';
      readonly ref: string;
      readonly value: number | 'open' | 'short';
      /** What was read when it is not the main value: a junction `b-e`, `gain`, `leakage`, … */
      readonly aspect?: string;
      readonly esr?: number;
      readonly condition?: 'in circuit' | 'leg lifted';
      /** Pin that had the red lead. */
      readonly red?: string;
      /** All controls stood as drawn. */
      readonly isAsDrawn?: true;
    }
  /** A voltage at a net, a test point, or a pin of a part: direct, of a tone (rms), or of a ripple (peak to peak). */
  | {
      readonly kind: 'voltage';
      readonly at: string;
      readonly net: string | null;
      readonly value: number;
      readonly unit: VoltageUnit;
    }
  /** What is seen or heard at a test point. */
  | { readonly kind: 'seen'; readonly at: string; readonly saw: SawWord }
  /** What the bench says of a readout. */
  | { readonly kind: 'readout'; readonly id: string; readonly value: number };

/** A voltage as evidence keeps it: direct, rms of a tone, peak to peak of a ripple. */
export type VoltageUnit = 'V' | 'Vrms' | 'Vpp';

export type EntryResult =
  { readonly ok: true; readonly entry: Entry } | { readonly ok: false; readonly problem: Problem };

const SAW_WORDS: Readonly<Record<string, SawWord>> = {
  ...Object.fromEntries(SAW.map((s) => [s, s])),
  there: 'good',
  ok: 'good',
  nothing: 'none',
  dead: 'none',
};

const bad = (detail: string, ref?: string): EntryResult => ({
  ok: false,
  problem: problem('sheet/unreadable', { detail, ref }),
});

/**
 * Reads one line of the entry field: `R7 62k`, `C3 3.9u esr 8`, `C3 esr 8`, `R7 62k in circuit`, `R7 62k red b as drawn`, `Q2 be 0.65V`, `C3 leak 2uA`, `Q2c 4.1V` (a pin of a part), `vcc 11.9V`,
 * `TP5 hum`, `TP5 4.1V`, `offset 12mV` (a readout by its id or name). Units follow from what it is of.
 */
export function parseEntry(line: string, document: UnitDocument): EntryResult {
  const text = line.trim().replace(/\s+/g, ' ');
  if (text === '') return bad('The line is empty.');
  const lower = text.toLowerCase();
  const readout = document.readouts
    .flatMap((r) => [r.id, r.name].map((name) => ({ r, name })))
    .filter(({ name }) => lower.startsWith(`${name.toLowerCase()} `))
    .sort((a, b) => b.name.length - a.name.length)[0];
  const [head, ...rest] = text.split(' ');
  const part = partNamed(head!, document);
  const exactNet = netsOf(document.circuit).find((n) => n === head);
  // A net `c1` beside a part `C1`: the way it is written tells, where what follows makes sense for it.
  if (part && part.ref !== head && exactNet !== undefined) {
    const place = placeEntry(exactNet, exactNet, rest);
    if (place.ok) return place;
  }
  const point = document.path?.testPoints?.find((t) => t.id.toLowerCase() === head!.toLowerCase());
  if (part) return partEntry(part, rest);
  if (point) return placeEntry(point.id, point.net ?? null, rest);
  const net = netsOf(document.circuit).find((n) => n.toLowerCase() === head!.toLowerCase());
  if (net !== undefined) return placeEntry(net, net, rest);
  const pin = pinNamed(head!, document);
  if (pin) return placeEntry(pin.net, pin.net, rest);
  if (readout) {
    const value = parseValue(text.slice(readout.name.length).trim(), { purpose: 'reading', kind: 'number' });
    const any = value.ok ? value : parseValue(text.slice(readout.name.length).trim(), { purpose: 'reading' });
    return any.ok
      ? { ok: true, entry: { kind: 'readout', id: readout.r.id, value: any.readings[0].value } }
      : bad(any.problem.message);
  }
  return bad(`"${head}" is no part, pin, net, test point or readout of this unit.`);
}

const partNamed = (word: string, { circuit }: UnitDocument): Part | undefined =>
  circuit.parts.find((p) => p.ref.toLowerCase() === word.toLowerCase());

/** `Q2c`: a part and one of its pins. */
function pinNamed(word: string, { circuit }: UnitDocument): { net: string } | undefined {
  const lower = word.toLowerCase();
  for (const p of circuit.parts) {
    const ref = p.ref.toLowerCase();
    if (!lower.startsWith(ref)) continue;
    const pin = lower.slice(ref.length).replace(/^[.-]/, '');
    const net = Object.entries(p.pins).find(([name]) => name.toLowerCase() === pin)?.[1];
    if (net !== undefined) return { net };
  }
  return undefined;
}

/** How a part was read, as far as the line says it. */
interface How {
  condition?: 'in circuit' | 'leg lifted';
  red?: string;
  isAsDrawn?: true;
}

/** Takes from the end of a line how it was read: `in circuit`, `lifted`, `red b`, `as drawn`, in any order. */
function takeHow(part: Part, rest: string[]): How | { readonly wrong: string } {
  const how: How = {};
  for (;;) {
    const tail = rest.slice(-2).join(' ').toLowerCase();
    if (tail === 'in circuit' || tail === 'leg lifted') {
      how.condition = tail;
      rest.splice(-2);
    } else if (tail === 'as drawn') {
      how.isAsDrawn = true;
      rest.splice(-2);
    } else if (rest.at(-1)?.toLowerCase() === 'lifted') {
      how.condition = 'leg lifted';
      rest.pop();
    } else if (rest.length > 1 && rest.at(-2)!.toLowerCase() === 'red') {
      const named = rest.at(-1)!.toLowerCase();
      // By its name or its number, as it is touched.
      const found = findPin([part], `${part.ref}.${named}`);
      const pin = found.ok && found.ref === part.ref ? found.pin : undefined;
      if (pin === undefined)
        return {
          wrong: `${part.ref} has no pin ${named} for the red lead; it has ${Object.keys(part.pins).join(', ')}.`,
        };
      how.red = pin;
      rest.splice(-2);
    } else return how;
  }
}

function partEntry(part: Part, words: readonly string[]): EntryResult {
  const rest = [...words];
  const how = takeHow(part, rest);
  if ('wrong' in how) return bad(how.wrong, part.ref);
  // Alone it is a reading of its own; after a value it goes with that.
  const esrAt = rest.findIndex((w, i) => i > 0 && w.toLowerCase() === 'esr');
  let esr: number | undefined;
  if (esrAt >= 0) {
    const parsed = parseValue(rest.slice(esrAt + 1).join(' '), { kind: 'resistor', purpose: 'reading' });
    if (!parsed.ok) return bad(`${part.ref}: the ESR is missing or cannot be read.`, part.ref);
    esr = parsed.readings[0].value;
    rest.splice(esrAt);
  }
  const aspect = aspectIn(part, rest) ?? bareAspect(part);
  const word = rest.join(' ').trim();
  if (aspect?.isWordAlone && word === '') return { ok: true, entry: aspectEntry(part, aspect, 'open', how) };
  if (word === '') return bad(`${part.ref}: the reading is missing.`, part.ref);
  if (aspect) return readAspect(part, aspect, word, how);
  const more = { ...(esr === undefined ? {} : { esr }), ...how };
  const state = meterWord(word);
  if (state) return { ok: true, entry: { kind: 'part', ref: part.ref, value: state, ...more } };
  const quantity: QuantityKind | null = KINDS[part.kind].value;
  if (quantity === null)
    return bad(
      `${part.ref} has no value that a meter reads; type a pin, as ${part.ref}${Object.keys(part.pins)[0] ?? ''} 4.1V.`,
      part.ref,
    );
  const expected = markedNumber(part);
  const parsed = parseValue(word, {
    kind: quantity,
    purpose: 'reading',
    ...(expected === null ? {} : { expected }),
  });
  if (!parsed.ok) return bad(`${part.ref}: ${parsed.problem.message}`, part.ref);
  const { value } = parsed.readings[0];
  if (!(value >= 0)) return bad(`${part.ref}: a reading of a part is not below zero.`, part.ref);
  return { ok: true, entry: { kind: 'part', ref: part.ref, value: value === 0 ? 'short' : value, ...more } };
}

/** A diode test shows no more than its own battery, V (common practice). */
const MOST_JUNCTION_V = 10;

/** What beside the main value the line begins with, and takes the word away: `be`, `b-e`, `gain`, `leak`. */
function aspectIn(part: Part, words: string[]): Aspect | null {
  const first = words[0]?.toLowerCase();
  const aspect = aspectsOf(part).find((a) => first !== undefined && a.words.includes(first));
  if (aspect) words.shift();
  return aspect ?? null;
}

function aspectEntry(part: Part, aspect: Aspect, value: number | 'open' | 'short', how: How): Entry {
  return {
    kind: 'part',
    ref: part.ref,
    aspect: aspect.id,
    value,
    ...how,
  };
}

function readAspect(part: Part, aspect: Aspect, word: string, how: How): EntryResult {
  const state = meterWord(word);
  if (state) return { ok: true, entry: aspectEntry(part, aspect, state, how) };
  const parsed = parseValue(word, { kind: aspect.quantity, purpose: 'reading' });
  if (!parsed.ok) return bad(`${part.ref} ${aspect.words[0]}: ${parsed.problem.message}`, part.ref);
  const { value } = parsed.readings[0];
  if (!(value >= 0)) return bad(`${part.ref}: a reading of a part is not below zero.`, part.ref);
  if (aspect.quantity === 'voltage' && value > MOST_JUNCTION_V)
    return bad(
      `${part.ref}: ${word} is no voltage of a junction; with its unit, ${value} mV is typed ${value}mV.`,
      part.ref,
    );
  return { ok: true, entry: aspectEntry(part, aspect, value, how) };
}

const TONE_WORDS = /^(?:level|tone)\s+|\s*(?:rms|ac)$/i;
const RIPPLE_WORDS = /^ripple\s+|\s*(?:pp|p-p)$/i;

/** A voltage as typed, and which voltage it is by its word: `240mV rms`, `level 240mV`, `ripple 12mV`, `12mVpp`. */
export function voltageWords(text: string): { readonly plain: string; readonly unit: VoltageUnit } {
  const word = text.trim();
  if (TONE_WORDS.test(word)) return { plain: word.replace(TONE_WORDS, ''), unit: 'Vrms' };
  if (RIPPLE_WORDS.test(word)) return { plain: word.replace(RIPPLE_WORDS, ''), unit: 'Vpp' };
  return { plain: word, unit: 'V' };
}

function placeEntry(at: string, net: string | null, words: readonly string[]): EntryResult {
  const word = words.join(' ').trim();
  if (word === '') return bad(`${at}: what was seen there is missing.`);
  const saw = SAW_WORDS[word.toLowerCase()];
  if (saw) return { ok: true, entry: { kind: 'seen', at, saw } };
  const { plain, unit } = voltageWords(word);
  const parsed = parseValue(plain, { kind: 'voltage', purpose: 'reading' });
  if (!parsed.ok) return bad(`${at}: "${word}" is neither a voltage nor what is seen: ${SAW.join(', ')}.`);
  return { ok: true, entry: { kind: 'voltage', at, net, value: parsed.readings[0].value, unit } };
}

/** Words with which a line can begin, for completion: parts, test points, nets, readouts. */
export function entryHeads(document: UnitDocument): string[] {
  return [
    ...document.circuit.parts.map((p) => p.ref),
    ...(document.path?.testPoints ?? []).map((t) => t.id),
    ...netsOf(document.circuit).filter((n) => n !== document.circuit.ground),
    ...document.readouts.map((r) => r.name),
  ];
}
