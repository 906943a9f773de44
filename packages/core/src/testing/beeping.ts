import type { BeepData } from '@zemble/contract';
import type { Circuit } from '../circuit/circuit/index.ts';
import {
  contradictionsOf,
  formNets,
  nextBeep,
  ownNet,
  pinText,
  type BeepQuestion,
  type Traceable,
} from '../circuit/continuity/index.ts';

/** A circuit as it is typed before anything beeped: every pin on a net of its own. */
export const untraced = (circuit: Circuit): Traceable => ({
  ground: circuit.ground,
  parts: circuit.parts.map((part) => ({
    ...part,
    saidPins: {},
    pins: Object.fromEntries(Object.keys(part.pins).map((pin) => [pin, ownNet(part.ref, pin)])),
  })),
  beeps: [],
});

/** A board with a meter on it: says of two ends whether they are one net. */
export class Board {
  private readonly nets: ReadonlyMap<string, string>;

  constructor(circuit: Circuit) {
    this.nets = new Map(
      circuit.parts.flatMap(({ ref, pins }) =>
        Object.entries(pins).map(([pin, net]) => [pinText(ref, pin), net] as const),
      ),
    );
  }

  beeps(one: string, other: string): boolean {
    return this.netOf(one) === this.netOf(other);
  }

  netOf(end: string): string {
    return this.nets.get(end) ?? end;
  }

  /** Its nets as sets of pins, written so that they can be compared. */
  partition(): string[] {
    return partition([...this.nets.keys()], (pin) => this.netOf(pin));
  }

  /** Pins on each net. */
  sizes(): ReadonlyMap<string, number> {
    const sizes = new Map<string, number>();
    for (const net of this.nets.values()) sizes.set(net, (sizes.get(net) ?? 0) + 1);
    return sizes;
  }

  /**
   * What a person finds who only hears whether it beeps somewhere in a sweep, and not where.
   *
   * @param isWrong whether this answer is a wrong one
   */
  answer({ kind, hold, over }: BeepQuestion, isWrong = false): BeepData[] {
    const isEach = kind === 'together' || kind === 'analogy';
    const beeping = over.filter((end) => this.beeps(hold, end) !== (isWrong && isEach));
    if (isEach) {
      const silent = over.filter((end) => !beeping.includes(end));
      return [
        ...(beeping.length > 0 ? [{ says: 'together' as const, ends: [hold, ...beeping] }] : []),
        ...(silent.length > 0 ? [{ says: 'apart' as const, ends: [hold, ...silent] }] : []),
      ];
    }
    if (beeping.length > 0 === isWrong) return [{ says: 'apart', ends: [hold, ...over] }];
    return [{ says: over.length === 1 ? 'together' : 'one of', ends: [hold, ...over] }];
  }
}

/** The nets of a trace as sets of pins, written so that they can be compared. */
export const tracedPartition = (traced: Traceable): string[] => {
  const { pins } = formNets(traced);
  const all = traced.parts.flatMap(({ ref, pins: own }) => Object.keys(own).map((pin) => ({ ref, pin })));
  const nets = new Map(all.map(({ ref, pin }) => [pinText(ref, pin), pins.get(ref)![pin]!]));
  return partition([...nets.keys()], (pin) => nets.get(pin)!);
};

function partition(pins: readonly string[], netOf: (pin: string) => string): string[] {
  const nets = new Map<string, string[]>();
  for (const pin of pins) nets.set(netOf(pin), [...(nets.get(netOf(pin)) ?? []), pin]);
  return [...nets.values()].map((all) => all.sort().join(' ')).sort();
}

/**
 * Traces a board by what is proposed, until all is proven or something contradicts itself.
 *
 * @param isWrong whether the next answer is a wrong one
 * @returns `asked`: the beeps until all was settled, the proofs not counted
 */
export function traceBoard(
  circuit: Circuit,
  { isWrong = () => false, isProven = true }: { isWrong?: () => boolean; isProven?: boolean } = {},
) {
  const board = new Board(circuit);
  const beeps: BeepData[] = [];
  const traced: Traceable = { ...untraced(circuit), beeps };
  const MOST = 5000;
  let asked = 0;
  let held: string | undefined;
  while (beeps.length < MOST) {
    const nets = formNets(traced);
    const contradictions = contradictionsOf(traced, nets);
    const { question } = nextBeep(traced, nets, { held });
    const isDone = question === null || (!isProven && question.kind !== 'sweep');
    if (isDone || contradictions.length > 0) return { board, traced, asked, contradictions };
    held = question.hold;
    if (question.kind === 'sweep') asked += 1;
    beeps.push(...board.answer(question, isWrong()));
  }
  throw new Error(`It was not traced after ${MOST} beeps.`);
}

const log2Factorial = (n: number): number => {
  let sum = 0;
  for (let i = 2; i <= n; i += 1) sum += Math.log2(i);
  return sum;
};

/**
 * The information that tells the nets of a board from all others with nets of the same sizes, bits: the number of ways to deal its
 * pins out to nets of those sizes, nets of one size not told apart but for the ground (multinomial coefficient). Whoever hears one
 * of two answers to a question needs at least as many on average.
 */
export function informationBound(board: Board, ground: string): number {
  const sizes = board.sizes();
  const alike = new Map<number, number>();
  for (const [net, size] of sizes) if (net !== ground) alike.set(size, (alike.get(size) ?? 0) + 1);
  const pins = [...sizes.values()].reduce((a, b) => a + b, 0);
  const minus = [...sizes.values(), ...alike.values()].reduce((sum, n) => sum + log2Factorial(n), 0);
  return log2Factorial(pins) - minus;
}
