import { sharedPins } from '../pinout/index.ts';
import type { Circuit, Part } from './part.ts';

/** Nets of a part's pins as they were said, apart from what beeps; pins that are missing were left to beeping. */
export const saidPins = (part: Pick<Part, 'pins' | 'saidPins'>): Readonly<Record<string, string>> =>
  part.saidPins ?? part.pins;

type Traced = Pick<Circuit, 'ground' | 'parts'>;

/** Whether a pin was left to beeping and nothing beeps with it yet, by the part and the pin. */
function untracedIn({ ground, parts }: Traced): (part: Part, pin: string) => boolean {
  const counts = new Map<string, number>();
  for (const { pins } of parts)
    for (const net of Object.values(pins)) counts.set(net, (counts.get(net) ?? 0) + 1);
  return (part, pin) => {
    const net = part.pins[pin]!;
    return !Object.hasOwn(saidPins(part), pin) && net !== ground && counts.get(net) === 1;
  };
}

const isBeeped = ({ parts }: Traced): boolean => parts.some((p) => p.saidPins !== undefined);

/**
 * Nets that rest in the air because a circuit is not traced to its end: all but the ground, as long as nothing beeps with some
 * pin that was left to it; none once every pin has a place.
 */
export function untracedNets(circuit: Traced): readonly string[] {
  if (!isBeeped(circuit)) return [];
  const { ground, parts } = circuit;
  const isUntraced = untracedIn(circuit);
  if (!parts.some((part) => Object.keys(part.pins).some((pin) => isUntraced(part, pin)))) return [];
  const nets = new Set(parts.flatMap((p) => Object.values(p.pins)));
  return [...nets].filter((net) => net !== ground);
}

/** Parts with none of whose own pins anything beeps yet; the supply of a package belongs to all its units. */
export function untracedParts(circuit: Traced): ReadonlySet<string> {
  if (!isBeeped(circuit)) return NONE;
  const isUntraced = untracedIn(circuit);
  return new Set(
    circuit.parts.flatMap((part) => {
      const shared = sharedPins(part);
      const own = Object.keys(part.pins).filter((pin) => !shared.includes(pin));
      return own.length > 0 && own.every((pin) => isUntraced(part, pin)) ? [part.ref] : [];
    }),
  );
}
const NONE: ReadonlySet<string> = new Set();
