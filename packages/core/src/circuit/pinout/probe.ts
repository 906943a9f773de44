import { numberOfPin, pinWords, unitOfPackage, type Packaged } from './numbered.ts';
import type { Pinned } from './find-pin.ts';

/** A place where a net can be touched. */
export interface ProbePlace {
  readonly ref: string;
  readonly pin: string;
  /** "U1 pin 3", "R7.b". */
  readonly short: string;
  /** "U1 pin 3, third from the notch, left side"; "R7, its end a". */
  readonly words: string;
}

/** Kinds whose legs are easy to touch, the best first: a lug, a long leg, a pin among others. */
const EASE: readonly string[] = ['jack', 'potentiometer', 'speaker', 'resistor', 'capacitor', 'diode'];

/**
 * Where a net can be touched, the place that is found most surely first: a pin with a number and a place, then the ends of parts.
 * Nothing for a net that no part is on.
 */
export function probePlaces(parts: readonly Pinned[], net: string): ProbePlace[] {
  const places = parts.flatMap((part) =>
    Object.entries(part.pins).flatMap(([pin, at]) => (at === net ? [{ part, pin }] : [])),
  );
  const rank = ({ part, pin }: (typeof places)[number]) => {
    if (numberOfPin(part, pin) !== undefined) return 0;
    const ease = EASE.indexOf(part.kind);
    return 1 + (ease < 0 ? EASE.length : ease);
  };
  return [...places].sort((a, b) => rank(a) - rank(b)).map(({ part, pin }) => probePlace(part, pin));
}

/** Where one pin of a part can be touched. */
export const probePlace = (part: Pinned, pin: string): ProbePlace => ({
  ref: part.ref,
  pin,
  short: shortOf(part, pin),
  words: wordsOf(part, pin),
});

const designatorOf = ({ ref }: Packaged): string => unitOfPackage(ref)?.designator ?? ref;

function shortOf(part: Packaged, pin: string): string {
  const number = numberOfPin(part, pin);
  return number === undefined ? `${part.ref}.${pin}` : `${designatorOf(part)} pin ${number}`;
}

function wordsOf(part: Packaged & Pick<Pinned, 'pins'>, pin: string): string {
  const words = pinWords(part, pin);
  if (words !== undefined) return `${designatorOf(part)} ${words}`;
  const isBanded = part.kind === 'diode' || part.kind === 'zener';
  if (isBanded) return `${part.ref}, the end ${pin === 'k' ? 'with' : 'without'} the band`;
  return `${part.ref}, its ${Object.keys(part.pins).length === 2 ? 'end' : 'pin'} ${pin}`;
}
