import type { BeepData } from '@zemble/contract';
import { UnionFind, type Circuit } from '../circuit/circuit/index.ts';
import {
  contradictionsOf,
  formNets,
  nextBeep,
  ownNet,
  pinText,
  throughQuestions,
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
  /** Nets that a tester beeps between, through a coil or a few ohms. */
  private readonly low = new UnionFind();

  constructor(circuit: Circuit, lowOhm: readonly string[] = []) {
    for (const { ref, pins } of circuit.parts) if (lowOhm.includes(ref)) this.low.join(pins.a!, pins.b!);
    this.nets = new Map(
      circuit.parts.flatMap(({ ref, pins }) =>
        Object.entries(pins).map(([pin, net]) => [pinText(ref, pin), net] as const),
      ),
    );
  }

  beeps(one: string, other: string): boolean {
    return this.low.find(this.netOf(one)) === this.low.find(this.netOf(other));
  }

  /** Whether what was said of a beep is so. */
  isTrue({ says, ends: [held, ...over], through }: BeepData): boolean {
    const isOne = (end: string) =>
      typeof through === 'string' ? this.beeps(held!, end) : this.netOf(held!) === this.netOf(end);
    if (says === 'together') return over.every(isOne);
    return says === 'apart'
      ? !over.some((end) => this.beeps(held!, end))
      : over.some((end) => this.beeps(held!, end));
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

/**
 * Traces a board as a person does who gives a wrong answer now and then, and who measures again what an alert names, in its
 * order, until the false beep is found; whether a beep went through a part is answered as it is.
 *
 * @param lowOhm parts that a tester beeps through
 * @returns `ranks`: at which place of its alert each false beep stood, the first being 0
 */
export function traceAndMend(
  circuit: Circuit,
  { isWrong = () => false, lowOhm = [] }: { isWrong?: () => boolean; lowOhm?: readonly string[] } = {},
) {
  const board = new Board(circuit, lowOhm);
  let beeps: BeepData[] = [];
  const ranks: number[] = [];
  const asked = new Map<string, number>();
  let touches = 0;
  let held: string | undefined;
  const MOST = 3000;
  for (;;) {
    if (beeps.length > MOST) throw new Error(`It was not traced after ${MOST} beeps.`);
    const traced: Traceable = { ...untraced(circuit), beeps };
    const nets = formNets(traced);
    const [through] = throughQuestions(traced, nets);
    const [alert] = contradictionsOf(traced, nets);
    if (through) {
      const { ends } = beeps[through.beep]!;
      const isDirect = ends.every((end) => board.netOf(end) === board.netOf(ends[0]!));
      const { ref } = through;
      beeps = beeps.map((b, i) => (i === through.beep ? { ...b, through: isDirect ? null : ref } : b));
      continue;
    }
    if (alert) {
      const rank = alert.beeps.findIndex((i) => !board.isTrue(beeps[i]!));
      if (rank < 0) throw new Error(`Nothing of it is false: ${alert.sentence}`);
      ranks.push(rank);
      beeps = beeps.map((b, i) => (i === alert.beeps[rank] ? { ...b, withdrawn: true } : b));
      continue;
    }
    const { question } = nextBeep(traced, nets, { held });
    if (!question) return { ranks, touches, asked, found: tracedPartition(traced), truth: board.partition() };
    held = question.hold;
    const words = `${question.kind} ${question.hold} ${question.over.join(' ')}`;
    asked.set(words, (asked.get(words) ?? 0) + 1);
    touches += 1;
    beeps = [...beeps, ...board.answer(question, isWrong())];
  }
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
