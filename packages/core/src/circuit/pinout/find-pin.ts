import { problem, type Problem } from '../../base/errors/index.ts';
import { pinByNumber, pinoutOf, unitOfPackage, type Packaged } from './numbered.ts';

/** A part as it stands in a circuit. */
export type Pinned = Packaged & { readonly pins: Readonly<Record<string, string>> };

export type FoundPin =
  | { readonly ok: true; readonly ref: string; readonly pin: string; readonly net: string }
  | { readonly ok: false; readonly problem: Problem };

/**
 * A pin as it is written: by its name, `Q2.b`, `U1A.plus`; by its number, `U1.3`, `V1.7`, `C3.1`; with its sign or letter behind
 * the designator, `C4+`, `D1k`. Names count before numbers, in any case; the number of a package finds the unit that has it.
 *
 * @returns the part, the pin's name and the net it is on, or what keeps it from being found: a transistor whose order of pins is
 * one of several is not numbered before it is said which
 */
export function findPin(parts: readonly Pinned[], text: string): FoundPin {
  const named = splitPin(parts, text);
  if (!named) return noPart(text.includes('.') ? text.slice(0, text.lastIndexOf('.')) : text);
  const { ref, name } = named;
  const part =
    parts.find((p) => p.ref === ref) ?? parts.find((p) => p.ref.toUpperCase() === ref.toUpperCase());
  if (part) return pinOf(part, name, parts);
  const units = parts.filter((p) => unitOfPackage(p.ref)?.designator === ref.toUpperCase());
  return units.length === 0 ? noPart(ref) : pinOfPackage(ref, units, name);
}

const noPart = (ref: string): FoundPin => ({ ok: false, problem: problem('change/no-part', { ref }) });

/** A pin's designator and name: apart by a dot, or with a sign or one letter behind the designator of a part that is there. */
function splitPin(
  parts: readonly Pinned[],
  text: string,
): { readonly ref: string; readonly name: string } | undefined {
  const dot = text.lastIndexOf('.');
  if (dot > 0) return { ref: text.slice(0, dot), name: text.slice(dot + 1) };
  const [, ref, name] = /^([A-Za-z]+\d+[A-Da-d]?)([+\-\u2212]|[a-z]{1,2})$/i.exec(text) ?? [];
  const isThere = parts.some((p) => p.ref.toUpperCase() === ref?.toUpperCase());
  return ref === undefined || name === undefined || !isThere ? undefined : { ref, name };
}

/** Signs for the two ends of a part. */
const SIGNS: ReadonlyMap<string, readonly string[]> = new Map([
  ['+', ['plus', 'a']],
  ['-', ['minus', 'b', 'k']],
  ['\u2212', ['minus', 'b', 'k']],
]);

function pinOf(part: Pinned, name: string, parts: readonly Pinned[]): FoundPin {
  const pins = Object.keys(part.pins);
  const found = (pin: string): FoundPin => ({ ok: true, ref: part.ref, pin, net: part.pins[pin]! });
  const own = Object.hasOwn(part.pins, name)
    ? name
    : (pins.find((pin) => pin.toLowerCase() === name.toLowerCase()) ??
      SIGNS.get(name)?.find((sign) => pins.includes(sign)));
  if (own !== undefined) return found(own);
  const number = /^\d+$/.test(name) ? Number(name) : undefined;
  if (number === undefined) return noPin(part, name);
  const known = pinoutOf(part);
  if (known?.isAssumed) return unsaid(part, known.orders);
  const byNumber = known ? pinByNumber(part, number) : twoEnds(part, number);
  if (!byNumber) return noPin(part, name);
  const sibling = siblingOf(part, byNumber.unit, parts);
  if (!sibling || !Object.hasOwn(sibling.pins, byNumber.pin)) return noPin(part, name);
  return { ok: true, ref: sibling.ref, pin: byNumber.pin, net: sibling.pins[byNumber.pin]! };
}

/** The unit of the same package that has a pin; the part itself where its pins are its own or shared. */
function siblingOf(part: Pinned, unit: string | null, parts: readonly Pinned[]): Pinned | undefined {
  const own = unitOfPackage(part.ref);
  if (unit === null || (own?.unit ?? 'A') === unit) return part;
  return parts.find((p) => {
    const other = unitOfPackage(p.ref);
    return other !== null && own !== null && other.designator === own.designator && other.unit === unit;
  });
}

/** The ends of a resistor, a capacitor, a coil in the order of its legs; a diode's are told by its band alone. */
function twoEnds(
  { pins, kind }: Pinned,
  number: number,
): { readonly unit: null; readonly pin: string } | undefined {
  const names = Object.keys(pins);
  const isBanded = kind === 'diode' || kind === 'zener' || kind === 'led';
  const pin = names.length === 2 && !isBanded ? names[number - 1] : undefined;
  return pin === undefined ? undefined : { unit: null, pin };
}

function pinOfPackage(designator: string, units: readonly Pinned[], name: string): FoundPin {
  const [first] = units as [Pinned];
  const known = /^\d+$/.test(name) ? pinoutOf(first) : undefined;
  if (known?.isAssumed) return unsaid({ ...first, ref: designator }, known.orders);
  const byNumber = known && pinByNumber(first, Number(name));
  if (byNumber) {
    const having = units.find(
      (p) =>
        Object.hasOwn(p.pins, byNumber.pin) &&
        (byNumber.unit === null || unitOfPackage(p.ref)!.unit === byNumber.unit),
    );
    if (having) return { ok: true, ref: having.ref, pin: byNumber.pin, net: having.pins[byNumber.pin]! };
  }
  // A name that only one net answers to, as the supply pin of a package.
  const named = units.filter((p) => Object.hasOwn(p.pins, name));
  const [having] = named;
  const isOne = new Set(named.map((p) => p.pins[name])).size === 1;
  if (having && isOne && (units.length === 1 || !isOfUnit(first, name)))
    return { ok: true, ref: having.ref, pin: name, net: having.pins[name]! };
  return {
    ok: false,
    problem: problem('circuit/unknown-pin', {
      ref: designator,
      text: name,
      detail: units.map((p) => `${p.ref}.${Object.keys(p.pins).join(`, ${p.ref}.`)}`).join(', '),
    }),
  };
}

const isOfUnit = (part: Pinned, name: string): boolean =>
  pinoutOf(part)?.variant.pins.some((entry) => /^[A-D]\./.test(entry) && entry.slice(2) === name) === true;

const noPin = ({ ref, pins }: Pinned, text: string): FoundPin => ({
  ok: false,
  problem: problem('circuit/unknown-pin', { ref, text, detail: Object.keys(pins).join(', ') }),
});

const unsaid = ({ ref, model }: Pinned, orders: readonly string[]): FoundPin => ({
  ok: false,
  problem: problem('circuit/pinout-unsaid', { ref, text: model ?? ref, detail: orders.join(' and ') }),
});
