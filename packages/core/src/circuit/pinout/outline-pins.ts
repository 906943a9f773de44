import { pinoutOf, unitOfPackage } from './numbered.ts';
import type { Outline } from './outlines.ts';
import type { Pinned } from './find-pin.ts';

/** What stands at a pin of an outline. */
export interface OutlinePin {
  /** "A out: n4"; "-" for a pin that is none of the part's. */
  readonly words: string;
  /** The net that it is on; null where it is not known. */
  readonly net: string | null;
}

/** The package of a part with its pins in order, those of its other units too. */
export interface PackagePins {
  readonly words: string;
  readonly outline: Outline;
  readonly labels: readonly OutlinePin[];
  /** The order that is shown, and those that it also comes in where none was said. */
  readonly order: string;
  readonly others: readonly string[];
}

/** The pins of a part's package, from pin 1; undefined where its outline or its pins are not known. */
export function outlinePins(parts: readonly Pinned[], ref: string): PackagePins | undefined {
  const part = parts.find((p) => p.ref === ref);
  const known = part && pinoutOf(part);
  if (!part || !known?.outline || known.outline.pins !== known.variant.pins.length) return undefined;
  const own = unitOfPackage(ref);
  const units = own ? parts.filter((p) => unitOfPackage(p.ref)?.designator === own.designator) : [part];
  const labels = known.variant.pins.map((entry): OutlinePin => {
    if (entry === '-') return { words: '–', net: null };
    const [, unit = null, pin = entry] = /^(?:([A-D])\.)?(.+)$/.exec(entry) ?? [];
    const having = units.find(
      (p) => (unit === null || (unitOfPackage(p.ref)?.unit ?? 'A') === unit) && p.pins[pin] !== undefined,
    );
    const net = having?.pins[pin] ?? null;
    const name = unit !== null && own ? `${unit} ${pin}` : pin;
    return { words: net === null ? name : `${name}: ${net}`, net };
  });
  const model = part.model === undefined ? '' : ` ${part.model}`;
  return {
    words: `${own?.designator ?? ref}${model}`,
    outline: known.outline,
    labels,
    order: known.variant.name,
    others: known.isAssumed ? known.orders.filter((name) => name !== known.variant.name) : [],
  };
}
