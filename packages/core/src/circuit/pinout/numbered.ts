import type { PartKind } from '@zemble/contract';
import { outlineNamed, pinPlace, type Outline } from './outlines.ts';
import { PINOUTS, type Pinout, type PinoutVariant } from './pinouts.ts';

/** What tells the pins of a part: its type, and what is said of its case. */
export interface Packaged {
  readonly ref: string;
  readonly kind: PartKind;
  readonly model?: string | undefined;
  /** An outline by its name. */
  readonly package?: string | undefined;
  /** Which of several orders it is, "C-B-E", or what each pin is in order, with hyphens between. */
  readonly pinout?: string | undefined;
}

/** A designator with several parts in one package: "U1B" is unit B of U1. */
export function unitOfPackage(ref: string): { readonly designator: string; readonly unit: string } | null {
  const [, designator, unit] = /^([A-Za-z]+\d+)([A-Da-d])$/.exec(ref) ?? [];
  return designator === undefined || unit === undefined
    ? null
    : { designator: designator.toUpperCase(), unit: unit.toUpperCase() };
}

/** The case of a part with its pins in order. */
export interface PartPinout {
  readonly outline: Outline | undefined;
  readonly variant: PinoutVariant;
  /** All orders that the type comes in. */
  readonly orders: readonly string[];
  /** True where the order was neither said nor is the only one. */
  readonly isAssumed: boolean;
}

function knownPinout(part: Packaged): Pinout | undefined {
  const model = part.model?.trim().toUpperCase();
  return PINOUTS.find(
    (p) =>
      p.kind === part.kind &&
      (p.types.length === 0 || (model !== undefined && p.types.includes(model))) &&
      (part.package === undefined || sameOutline(p.package, part.package)),
  );
}

/** Which pin is what of a part; undefined where neither its type nor the part itself says it. */
export function pinoutOf(part: Packaged): PartPinout | undefined {
  const known = knownPinout(part);
  const outline = outlineNamed(part.package ?? known?.package ?? '');
  const said = part.pinout?.trim().toUpperCase();
  const orders = known?.variants.map((v) => v.name) ?? [];
  if (said !== undefined && said !== '') {
    const named = known?.variants.find((v) => v.name.toUpperCase() === said);
    const pins = said.toLowerCase().split('-');
    return { outline, variant: named ?? { name: said, pins }, orders, isAssumed: false };
  }
  if (!known) return part.kind === 'box' && outline ? byNumberAlone(outline) : undefined;
  return { outline, variant: known.variants[0]!, orders, isAssumed: known.variants.length > 1 };
}

/** A box in a known case has its pins by their numbers: a chip that no model is there of, a connector. */
const byNumberAlone = (outline: Outline): PartPinout => ({
  outline,
  variant: { name: 'by number', pins: Array.from({ length: outline.pins }, (_, i) => String(i + 1)) },
  orders: [],
  isAssumed: false,
});

/** What data sheets usually have around the pins of a part, by the pin's name, as a note of its own has it; with where it is from. */
export function usualSurroundings(part: Packaged): {
  readonly notes: Readonly<Record<string, string>>;
  readonly origin: string;
} {
  const known = knownPinout(part);
  return { notes: known?.surroundings ?? {}, origin: known?.origin ?? '' };
}

const sameOutline = (one: string, other: string): boolean =>
  outlineNamed(one) !== undefined && outlineNamed(one) === outlineNamed(other);

/** The name of a pin without its unit, and the unit that it is of. */
function nameOf(entry: string): { readonly unit: string | null; readonly pin: string } {
  const [, unit, pin] = /^([A-D])\.(.+)$/.exec(entry) ?? [];
  return unit === undefined ? { unit: null, pin: entry } : { unit, pin: pin! };
}

const isOwn = (entry: string, pin: string, unit: string | null): boolean => {
  const named = nameOf(entry);
  return (
    named.pin.toLowerCase() === pin.toLowerCase() && (named.unit === null || named.unit === (unit ?? 'A'))
  );
};

/** The number of a part's pin by its name; undefined where it has none that is known. */
export function numberOfPin(part: Packaged, pin: string): number | undefined {
  const known = pinoutOf(part);
  if (!known || known.outline?.isUnnumbered === true) return undefined;
  const at = known.variant.pins.findIndex((entry) =>
    isOwn(entry, pin, unitOfPackage(part.ref)?.unit ?? null),
  );
  return at < 0 ? undefined : at + 1;
}

/** What a pin by its number is of: its name, and the unit where several share the package; undefined for none. */
export function pinByNumber(
  part: Packaged,
  number: number,
): { readonly unit: string | null; readonly pin: string } | undefined {
  const known = pinoutOf(part);
  const entry = known?.outline?.isUnnumbered === true ? undefined : known?.variant.pins[number - 1];
  return entry === undefined || entry === '-' ? undefined : nameOf(entry);
}

/** Pins that every unit of a package has in common, as its supply; none for a type with one unit. */
export function sharedPins(part: Packaged): readonly string[] {
  const named = pinoutOf(part)?.variant.pins.map(nameOf) ?? [];
  return named.some((n) => n.unit !== null)
    ? named.flatMap((n) => (n.unit === null && n.pin !== '-' ? [n.pin] : []))
    : [];
}

/**
 * A pin as hands find it: "pin 3, third from the notch, left side"; where the order is one of several it says which was taken.
 * Undefined where its number is not known.
 */
export function pinWords(part: Packaged, pin: string): string | undefined {
  const number = numberOfPin(part, pin);
  const known = pinoutOf(part);
  if (number === undefined || !known) return undefined;
  const place = known.outline ? `, ${pinPlace(known.outline, number)}` : '';
  const guess = known.isAssumed ? ` (if it is ${known.variant.name}: it also comes as ${others(known)})` : '';
  return `pin ${number}${place}${guess}`;
}

const others = ({ orders, variant }: PartPinout): string =>
  orders.filter((name) => name !== variant.name).join(' or ');

/** Whether a part is a unit of a package: U1A of U1. R10 is none of R1. */
export const isOfPackage = (ref: string, designator: string): boolean =>
  unitOfPackage(ref)?.designator === designator.toUpperCase();
