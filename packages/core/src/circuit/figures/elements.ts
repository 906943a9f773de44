import type { Part } from '../circuit/index.ts';
import type { Element, Match, Surroundings } from './pattern.ts';

/** A figure of the trade: its elements, and what else makes it one. */
export interface Pattern {
  readonly id: string;
  readonly name: string;
  readonly elements: readonly Element[];
  /** Letters of nets that are no rail; most of a circuit's parts touch one. */
  readonly inner?: readonly string[];
  /** Roles that it is called by. */
  readonly named: readonly string[];
  /** What is asked beside the connections. */
  readonly isIt: (match: Match, around: Surroundings) => boolean;
  /** Plainer figures of the same named parts that it stands for. */
  readonly insteadOf?: readonly string[];
}

export const part = (
  role: string,
  kinds: readonly Part['kind'][],
  pins: Readonly<Record<string, string>>,
): Element => ({ role, kinds, pins });
export const q = (role: string, c: string, b: string, e: string): Element => part(role, ['bjt'], { c, b, e });
export const two =
  (kind: Part['kind']) =>
  (role: string, a: string, b: string): Element => ({
    ...part(role, [kind], { a, b }),
    isSymmetric: true,
  });
export const r = two('resistor');
export const c = two('capacitor');
export const d = (role: string, a: string, k: string): Element =>
  part(role, ['diode', 'zener', 'led'], { a, k });
export const u = (plus: string, minus: string, out: string): Element =>
  part('U', ['opamp'], { plus, minus, out });
export const maybe = (element: Element): Element => ({ ...element, isOptional: true });

export const net = (m: Match, letter: string): string => m.nets.get(letter)!;
export const of = (m: Match, role: string): Part => m.parts.get(role)!;
export const value = (p: Part | undefined): number => Number(p?.marked ?? Number.NaN);
export const apart = (m: Match, ...letters: readonly string[]): boolean =>
  new Set(letters.map((l) => net(m, l))).size === letters.length;
/** Both ends of a match that reads the same from either side: one of them is kept. */
export const inOrder = (m: Match, one: string, other: string): boolean => of(m, one).ref < of(m, other).ref;
export const sameType = (m: Match, s: Surroundings, one: string, other: string): boolean =>
  s.isP(of(m, one)) === s.isP(of(m, other));
/** A net that a base, gate, grid or an opamp's input is on. */
export const isControl = (s: Surroundings, at: string): boolean =>
  s
    .at(at)
    .some(
      (p) =>
        [p.pins.b, p.pins.g, p.pins.plus].includes(at) &&
        ['bjt', 'jfet', 'mosfet', 'triode', 'pentode', 'opamp'].includes(p.kind),
    );

/** Two resistors this alike are meant to be equal, as a share. */
const ALIKE = 0.06;

export const nearly = (a: number, b: number): boolean => Math.abs(a - b) <= ALIKE * Math.max(a, b);

/** Whether a device's output is on a net. */
export const isDrivenBy = (s: Surroundings, at: string): boolean =>
  s.at(at).some((p) => p.pins.e === at || p.pins.out === at || p.kind === 'resistor');
