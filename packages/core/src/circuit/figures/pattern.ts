import { netsOf, touching, type Circuit, type Part } from '../circuit/index.ts';
import { isPType } from '../models/index.ts';
import { classifyNets, type NetClass } from './rails.ts';

/** A part that a figure has, by its role: of one of some kinds, its pins on nets that go by a letter of the figure's own. */
export interface Element {
  readonly role: string;
  readonly kinds: readonly Part['kind'][];
  /** Net letters by pin; of a part with two equal ends, in either order. */
  readonly pins: Readonly<Record<string, string>>;
  readonly isSymmetric?: true;
  /** The figure is one without it, too. */
  readonly isOptional?: true;
}

/** A way in which parts of a circuit are the elements of a figure. */
export interface Match {
  readonly parts: ReadonlyMap<string, Part>;
  readonly nets: ReadonlyMap<string, string>;
}

/** What figures are told by, beside who touches whom. */
export class Surroundings {
  readonly circuit: Circuit;
  readonly classOf: (net: string) => NetClass;
  private readonly byNet: ReadonlyMap<string, readonly Part[]>;
  private readonly quiet = new Map<string, boolean>();

  constructor(circuit: Circuit) {
    this.circuit = circuit;
    this.classOf = classifyNets(circuit);
    this.byNet = touching(circuit);
  }

  at(net: string): readonly Part[] {
    return this.byNet.get(net) ?? [];
  }

  isP(part: Part): boolean {
    return isPType(part, this.circuit.models);
  }

  isGround(net: string): boolean {
    return this.classOf(net) === 'ground';
  }

  isRail(net: string): boolean {
    return this.classOf(net) !== 'signal';
  }

  /** A net that holds still: a rail, or what a capacitor keeps from moving and no device does move. */
  isQuiet(net: string): boolean {
    if (this.isRail(net)) return true;
    const known = this.quiet.get(net);
    if (known !== undefined) return known;
    const parts = this.at(net);
    const isHeld = parts.some(
      (p) => p.kind === 'capacitor' && Number(p.marked) >= HOLDS_F && this.isRail(otherEnd(p, net) ?? net),
    );
    const isMoved = parts.some((p) => MOVERS.some((pin) => p.pins[pin] === net && MOVING.has(p.kind)));
    const resistorTo = (isTo: (other: string) => boolean) =>
      parts.some((p) => p.kind === 'resistor' && isTo(otherEnd(p, net) ?? net));
    const isDivider =
      resistorTo((o) => this.isGround(o)) && resistorTo((o) => this.isRail(o) && !this.isGround(o));
    const isQuiet = isHeld && (!isMoved || isDivider);
    this.quiet.set(net, isQuiet);
    return isQuiet;
  }

  /** Nets in order of appearance. */
  nets(): readonly string[] {
    return netsOf(this.circuit);
  }
}

/** A capacitor of at least this holds a net still, F. */
const HOLDS_F = 1e-6;
/** Pins by which devices move a net. */
const MOVERS = ['c', 'e', 'd', 's', 'a', 'k', 'out'] as const;
const MOVING: ReadonlySet<string> = new Set([
  'bjt',
  'jfet',
  'mosfet',
  'triode',
  'pentode',
  'opamp',
  'capsule',
]);

/** The net at the other end of a part with two ends. */
export function otherEnd({ pins }: Part, net: string): string | undefined {
  const nets = Object.values(pins);
  return nets.length === 2 ? nets.find((n) => n !== net) : undefined;
}

/** A signal net of more parts than this is no net of a figure. */
export const MOST_AT_A_NET = 60;
/** Where hundreds of parts meet in one net, as no circuit has it, the search for one figure ends here. */
const STEPS_A_PART = 40;
const MOST_MATCHES = 1000;

/** Every way in which elements are found in a circuit, `inner` nets being no rails; each part has one role of a match. Those that may be missing are added where they are there. */
export function matchesOf(
  { elements, inner = [] }: { readonly elements: readonly Element[]; readonly inner?: readonly string[] },
  around: Surroundings,
  isFitting: (match: Match) => boolean,
): Match[] {
  const isInside = (nets: ReadonlyMap<string, string>) =>
    inner.every((letter) => !nets.has(letter) || !around.isRail(nets.get(letter)!));
  const needed = elements.filter((e) => e.isOptional !== true);
  const found: Match[] = [];
  let steps = 0;
  const mostSteps = STEPS_A_PART * (around.circuit.parts.length + 50);
  const search = (index: number, parts: Map<string, Part>, nets: Map<string, string>): void => {
    const element = needed[index];
    if (!element) {
      const match = { parts: new Map(parts), nets: new Map(nets) };
      if (isFitting(match)) found.push(withOptional(match, elements, around));
      return;
    }
    for (const [part, bound] of candidates(element, around, parts, nets)) {
      steps += 1;
      if (steps > mostSteps || found.length >= MOST_MATCHES) return;
      if (!isInside(bound)) continue;
      parts.set(element.role, part);
      search(index + 1, parts, bound);
      parts.delete(element.role);
    }
  };
  search(0, new Map(), new Map());
  return found;
}

/** The letter of a net that must be the ground or a rail. */
const FOOT = 'ground';

function* candidates(
  element: Element,
  around: Surroundings,
  taken: ReadonlyMap<string, Part>,
  nets: ReadonlyMap<string, string>,
): Generator<readonly [Part, Map<string, string>]> {
  const known = Object.values(element.pins)
    .map((letter) => nets.get(letter))
    .find((net) => net !== undefined);
  const parts = known === undefined ? around.circuit.parts : around.at(known);
  const used = new Set([...taken.values()]);
  if (known !== undefined && parts.length > MOST_AT_A_NET && !around.isRail(known)) return;
  for (const part of parts) {
    if (!element.kinds.includes(part.kind) || used.has(part)) continue;
    for (const bound of bindings(element, part, nets))
      if (around.isRail(bound.get(FOOT) ?? around.circuit.ground)) yield [part, bound];
  }
}

/** The ways in which a part's pins are on an element's nets: one, or two of a part with equal ends. */
function bindings(element: Element, part: Part, nets: ReadonlyMap<string, string>): Map<string, string>[] {
  const letters = Object.entries(element.pins);
  const straight = letters.map(([pin, letter]) => [letter, part.pins[pin]] as const);
  const ways = [straight];
  if (element.isSymmetric) {
    const [one, other] = Object.keys(element.pins) as [string, string];
    ways.push([
      [element.pins[one]!, part.pins[other]],
      [element.pins[other]!, part.pins[one]],
    ]);
  }
  return ways.flatMap((way) => {
    const bound = new Map(nets);
    for (const [letter, net] of way) {
      if (net === undefined) return [];
      const before = bound.get(letter);
      if (before !== undefined && before !== net) return [];
      bound.set(letter, net);
    }
    return [bound];
  });
}

function withOptional(match: Match, elements: readonly Element[], around: Surroundings): Match {
  const parts = new Map(match.parts);
  let nets = new Map(match.nets);
  for (const element of elements.filter((e) => e.isOptional === true)) {
    const [first] = candidates(element, around, parts, nets);
    if (!first) continue;
    parts.set(element.role, first[0]);
    nets = first[1];
  }
  return { parts, nets };
}
