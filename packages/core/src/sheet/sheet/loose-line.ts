import { KINDS, type Part } from '../../circuit/circuit/index.ts';
import { ownNet } from '../../circuit/continuity/index.ts';
import { problem, type Problem } from '../../base/errors/index.ts';
import { PINOUTS, sharedPins, unitOfPackage } from '../../circuit/pinout/index.ts';
import { LineReader } from './line-reader.ts';
import { kindOfWord } from './line-words.ts';
import { readingsOf, refIn, wordsOf } from './sheet-line.ts';

export type LoosePartsResult =
  { readonly ok: true; readonly parts: readonly Part[] } | { readonly ok: false; readonly problem: Problem };

/**
 * Reads a part without nets, as it is typed before it is known what its pins beep with: `R7 47k`, `U1 TL072`, `J1 jack ring`,
 * `X1 box 1 2 3`. Each of its pins has a net of its own. A type with several units in its package becomes one part for each;
 * what stands behind a jack or a box are pins that it has beside its usual ones. Nets that are named, `J1 jack tip=in`, hold.
 *
 * @returns the parts, or what could not be understood
 */
export function parseLooseLine(line: string): LoosePartsResult {
  const words = wordsOf(line);
  const ref = refIn(words);
  if (typeof ref !== 'string') return ref;
  const rest = words.slice(1);
  for (const { kind, words: own } of readingsOf(ref, rest, false)) {
    const pins = loosePins(kind, own);
    const named = new Set(
      own.flatMap((w) => (w.includes('=') ? [w.slice(0, w.indexOf('=')).toLowerCase()] : [])),
    );
    const missing = pins.filter((pin) => !named.has(pin.toLowerCase()));
    const plain = own.filter((w) => (!pins.includes(w) || w.includes('=')) && kindOfWord(w) !== kind);
    const pairs = missing.map((pin) => `${pin}=${ownNet(ref, pin)}`);
    // What is said of a pin, by its name or its number, comes after its own net and holds.
    const { result } = new LineReader(ref, kind, [...pairs, ...plain]).read();
    // A word that was taken for the net of another pin is nothing that a line without nets can say.
    const isWhole =
      result.ok &&
      Object.entries(result.part.pins).every(
        ([pin, net]) => pins.includes(pin) || named.has(pin.toLowerCase()) || net === ownNet(ref, pin),
      );
    if (!result.ok || !isWhole) continue;
    const said = Object.fromEntries(
      Object.entries(result.part.pins).filter(([pin, net]) => net !== ownNet(ref, pin)),
    );
    return { ok: true, parts: unitsOf({ ...result.part, saidPins: said }) };
  }
  const detail = `${ref}: "${rest.join(' ')}" is neither a value, a type nor a kind of part.`;
  return { ok: false, problem: problem('sheet/unreadable', { detail, ref }) };
}

/** The pins that a part of a kind has: those that it must have, and what a line names beside them. */
function loosePins(kind: Part['kind'], words: readonly string[]): string[] {
  const { pins, optionalPins = [], hasFreePins } = KINDS[kind];
  const needed = pins.filter((pin) => !optionalPins.includes(pin));
  const wished = optionalPins.filter((pin) => words.includes(pin));
  const free = hasFreePins === true ? words.filter((w) => !w.includes('=') && kindOfWord(w) !== kind) : [];
  return [...needed, ...wished, ...free];
}

/** One part for each unit of its package; the part itself where it is one unit, or the only one. */
function unitsOf(part: Part): readonly Part[] {
  if (unitOfPackage(part.ref)) return [part];
  const model = part.model?.toUpperCase();
  const pinout = PINOUTS.find((p) => p.kind === part.kind && model !== undefined && p.types.includes(model));
  const letters = new Set(
    (pinout?.variants[0]?.pins ?? []).flatMap((entry) => /^([A-D])\./.exec(entry)?.[1] ?? []),
  );
  if (letters.size < 2) return [part];
  return [...letters].sort().map((letter) => {
    const ref = `${part.ref}${letter}`;
    const pins = Object.fromEntries(Object.keys(part.pins).map((pin) => [pin, ownNet(ref, pin)]));
    // A pin that is no other unit's is the first one's.
    const shared = sharedPins({ ...part, ref });
    const said = Object.fromEntries(
      Object.entries(part.saidPins ?? {}).filter(([pin]) => letter === FIRST_UNIT || shared.includes(pin)),
    );
    return { ...part, ref, pins: { ...pins, ...said }, saidPins: said };
  });
}

const FIRST_UNIT = 'A';
