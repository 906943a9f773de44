import { saidPins, type Part } from '../circuit/index.ts';
import { pinText, type Traceable } from './ends.ts';
import { formNets, type TracedNets } from './nets.ts';

const isSame = (a: Readonly<Record<string, string>>, b: Readonly<Record<string, string>>): boolean => {
  const names = Object.keys(a);
  return names.length === Object.keys(b).length && names.every((name) => a[name] === b[name]);
};

/** Whether nets of a circuit follow from beeps: some beeped, or some pins were left to it. */
export const isTraced = ({ parts, beeps = [] }: Pick<Traceable, 'parts' | 'beeps'>): boolean =>
  beeps.length > 0 || parts.some((p) => p.saidPins !== undefined);

/**
 * The parts of a circuit with their pins on the nets that follow from what was said and what beeped. A part whose pins are as
 * they were said no longer says it twice; one that nothing changes for is the same object.
 */
export function retraced(
  traced: Traceable,
  nets: Pick<TracedNets, 'pins'> = formNets(traced),
): readonly Part[] {
  return traced.parts.map((part) => {
    const pins = nets.pins.get(part.ref)!;
    const said = saidPins(part);
    const isPlain = isSame(pins, said);
    if (isSame(pins, part.pins) && isPlain === (part.saidPins === undefined)) return part;
    const { saidPins: _old, ...rest } = part;
    return { ...rest, pins, ...(isPlain ? {} : { saidPins: said }) };
  });
}

/**
 * A part as it was entered anew, beside the one that is there: a pin whose net is as it is shown stays as it was said, or left to
 * beeping; one that was given another net is said to be on that.
 */
export function restated(before: Part, entered: Part): Part {
  const { saidPins: _old, ...part } = entered;
  if (before.saidPins === undefined) return part;
  const said = before.saidPins;
  const saidNow = Object.fromEntries(
    Object.entries(part.pins).flatMap(([pin, net]) => {
      if (net !== before.pins[pin]) return [[pin, net] as const];
      return Object.hasOwn(said, pin) ? [[pin, said[pin]!] as const] : [];
    }),
  );
  return { ...part, saidPins: saidNow };
}

/** Beeps of a part under another designator. */
export const renamedEnds = (ends: readonly string[], from: string, to: string): string[] =>
  ends.map((end) => (end.startsWith(`${from}.`) ? pinText(to, end.slice(from.length + 1)) : end));

const known = new WeakMap<object, ReadonlyMap<string, string>>();
const NONE: ReadonlyMap<string, string> = new Map();

/** Names that nets of a circuit have gone by while it was traced, with those that hold now. */
export function tracedNames(circuit: Traceable): ReadonlyMap<string, string> {
  if (!isTraced(circuit)) return NONE;
  const made = known.get(circuit) ?? formNets(circuit).renamed;
  known.set(circuit, made);
  return made;
}
