import type { PartKind } from '@zemble/contract';
import { kindOfRef, KINDS, type KnownNets } from '../../circuit/circuit/index.ts';
import { modelNamed } from '../../circuit/models/index.ts';
import { LineReader, unreadable, VALUE_COST, type LineReading, type SheetLineResult } from './line-reader.ts';
import { kindOfWord } from './line-words.ts';

/**
 * Reads one line of the parts sheet: designator, value, nets, and after them any words: `polarised`, `log`, `closed`.
 * What the designator says holds: `R1 1k a led` is a resistor on a net called led. A kind word counts where the
 * designator does not tell, right behind it or as `kind=`. Ratings, a tolerance, a type number and the trade's own words
 * may stand before the nets too, where they cannot be taken for one. Nets follow the kind's pins in order, or are named:
 * `Q1 2N3904 c=n2 b=n1 e=n3`. Further fields are `name=value`.
 *
 * @example parseSheetLine('R4 47k in n2')
 * @example parseSheetLine('R5 yellow violet red gold in n2')
 * @example parseSheetLine('C10 470u 16V feed2 0 polarised')
 * @example parseSheetLine('P1 A10k a w b') // a log potentiometer
 * @example parseSheetLine('R9 0R a b') // a link
 * @param known the circuit that the line is of: `gnd`, `GND`, `ground` and `earth` are its ground where no net has that name
 * @returns the part with its marked value in SI units, or what could not be understood
 */
export function parseSheetLine(line: string, known: KnownNets = BLANK): SheetLineResult {
  const words = wordsOf(line);
  const ref = refIn(words);
  if (typeof ref !== 'string') return ref;
  const written = words.slice(1);
  const best = (rest: readonly string[]): LineReading | undefined => {
    const read = readingsOf(ref, rest).map(({ kind, words: own }) =>
      new LineReader(ref, kind, own, known).read(),
    );
    const least = Math.min(...read.map((r) => r.cost));
    return read.find((r) => r.cost === least);
  };
  const plain = best(written);
  // A number and its unit are two words where nothing else comes of them: "V1 24 V vcc 0".
  const joined = plain?.result.ok === true ? undefined : best(withUnits(written));
  return (
    (joined !== undefined && joined.cost < VALUE_COST ? joined : plain)?.result ??
    unreadable(`${ref}: the letters do not tell what it is. Add a word such as "resistor" or "box".`, ref)
  );
}

/** A circuit of which nothing is known, with the ground's usual name. */
const BLANK: KnownNets = { ground: '0', parts: [] };

/** A designator as some write it before the rest: "R4: 47k", "R4 = 47k". */
const HEADED = /^([A-Za-z]+\d[A-Za-z0-9._-]*)\s*[:=]\s*(?=\S)/;

/** The words of a line, a name and its value being one. */
export const wordsOf = (line: string): string[] =>
  line
    .trim()
    .replace(HEADED, '$1 ')
    .replace(/\s*=\s*/g, '=')
    .split(/\s+/)
    .filter(Boolean);

const BARE_NUMBER = /^[\d.,]*\d[\d.,]*$/;
const BARE_UNIT =
  /^(?:(?:meg|[pnuµμmkKM])?(?:ohms?|\u03a9|\u2126|v|volts?|f|farads?|h|henrys?|hz|w|watts?|a)|m?mfd?|[uµμ]{1,2}fd?|meg|[pnuµμkKM]|%)\.?$/i;

/** The words with each number and the unit behind it as one. */
function withUnits(words: readonly string[]): string[] {
  const joined: string[] = [];
  for (const word of words) {
    const before = joined.at(-1);
    if (before !== undefined && BARE_NUMBER.test(before) && BARE_UNIT.test(word))
      joined[joined.length - 1] = `${before}${word}`;
    else joined.push(word);
  }
  return joined;
}

/** The designator that a line begins with, or what is wrong with it. */
export function refIn([ref]: readonly string[]): string | Extract<SheetLineResult, { ok: false }> {
  if (ref === undefined) return unreadable('The line is empty.');
  return /^[A-Za-z][A-Za-z0-9._-]{0,31}$/.test(ref)
    ? ref
    : unreadable(`"${ref}" is not a designator: it begins with a letter, as R4 does.`);
}

interface KindReading {
  readonly kind: PartKind;
  readonly words: readonly string[];
}

/**
 * The kinds that a line may be of, likeliest first, each with the words that are left to say.
 *
 * @param hasNets false for a line without nets, in which no word can be the name of one
 */
export function readingsOf(ref: string, rest: readonly string[], hasNets = true): KindReading[] {
  const named = rest.find((w) => /^kind=/i.test(w));
  if (named !== undefined) {
    const kind = kindOfWord(named.slice('kind='.length));
    return kind ? [{ kind, words: rest.filter((w) => w !== named) }] : [];
  }
  const found: KindReading[] = [];
  const byLetters = kindOfRef(ref);
  const [head] = rest;
  const byWord = head === undefined ? undefined : kindOfWord(head);
  const model = head === undefined || !/\d/.test(head) ? undefined : modelNamed(head);
  // A type number says more than a letter: Q may be any transistor, V a valve.
  if (model && byLetters !== undefined && model.kind !== byLetters)
    found.push({ kind: model.kind, words: rest });
  // A narrower word than the designator's letters: a diode that is an LED, a supply that is a tone.
  const narrows = byLetters !== undefined && byWord !== undefined && isNarrower(byWord, byLetters);
  if (narrows && (!hasNets || rest.length > KINDS[byWord].pins.length))
    found.push({ kind: byWord, words: rest });
  if (byLetters === 'supply' && rest.some((w) => /\d[kM]?hz$|^(?:frequency|waveform|offset)=/i.test(w)))
    found.push({ kind: 'signal', words: rest });
  const last = rest.findLast((w) => kindOfWord(w) !== undefined);
  if (byLetters !== undefined && last !== undefined && last !== head) {
    const byLast = kindOfWord(last)!;
    if (isNarrower(byLast, byLetters) && rest.length > KINDS[byLast].pins.length + 1)
      found.push({ kind: byLetters, words: rest }, { kind: byLast, words: rest });
  }
  if (byLetters !== undefined) found.push({ kind: byLetters, words: rest });
  if (byWord !== undefined) found.push({ kind: byWord, words: rest });
  if (model) found.push({ kind: model.kind, words: rest });
  const anyWord = rest.map(kindOfWord).find((k) => k !== undefined);
  if (byLetters === undefined && anyWord !== undefined) found.push({ kind: anyWord, words: rest });
  return found;
}

/** Kinds that are a sort of another: drawn on the same letters, told apart by a word. */
const NARROWER: Readonly<Partial<Record<PartKind, readonly PartKind[]>>> = {
  diode: ['led', 'zener'],
  supply: ['signal', 'triode', 'pentode', 'regulator'],
  bjt: ['jfet', 'mosfet'],
  opamp: ['timer555', 'regulator', 'clock'],
  jumper: ['jack'],
  switch: ['changeover'],
  box: ['relay'],
};

const isNarrower = (kind: PartKind, than: PartKind): boolean => NARROWER[than]?.includes(kind) === true;
