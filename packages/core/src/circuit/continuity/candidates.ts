import { pinText, type Traceable } from './ends.ts';
import { netPoint } from './graph.ts';
import { groundShare, pairFactor, supplyShare } from './likely.ts';
import type { NetPin } from './names.ts';
import { apartSets, isOneOf, type TracedNets } from './nets.ts';

/** Pins that are known to be one net, and the ground, which is there before any pin is found on it. */
export interface Known {
  readonly set: string;
  readonly pins: readonly NetPin[];
  readonly isGround: boolean;
}

/** A net that another may be the same as, and how likely that is. */
export interface Candidate {
  readonly net: Known;
  readonly chance: number;
}

/** What is still to be found out of one net: which of those that are settled it is, or that it is none of them. */
export interface Unsettled {
  readonly net: Known;
  /** Likeliest first; none has been ruled out. */
  readonly candidates: readonly Candidate[];
}

/** Nets that are known to be apart from one another, and those of which it is still to be found out. */
export interface Settled {
  readonly settled: readonly Known[];
  readonly open: readonly Known[];
  /** Those to be asked of next: one that was begun, else all that are open and can be reached. */
  readonly next: readonly Unsettled[];
}

/** Pins of a net inside a circuit, on average (common practice: nets of two and three are most). */
const PINS_A_NET = 2.6;
const LEAST_NEW = 0.03;
const MOST_NEW = 0.95;

/**
 * Sorts the nets of a circuit into what is settled and what is not.
 *
 * @param isReached whether a lead can be held on a net
 */
export function settle(
  traced: Traceable,
  { graph, points }: TracedNets,
  isReached: (net: Known) => boolean,
): Settled {
  const { parts, ground } = traced;
  const groundSet = graph.setOf(netPoint(ground));
  const members = new Map<string, NetPin[]>([[groundSet, []]]);
  for (const part of parts)
    for (const pin of Object.keys(part.pins)) {
      const set = graph.setOf(pinText(part.ref, pin));
      const known = members.get(set);
      if (known) known.push({ part, pin });
      else members.set(set, [{ part, pin }]);
    }
  const nets = [...members].map(([set, pins]): Known => ({ set, pins, isGround: set === groundSet }));
  const { isApart, count } = apartSets(traced, points, graph);
  const only = onlyOneOf(traced, { graph, points });
  // What was held against most others first: what is settled stays so.
  const order = [...nets].sort(
    (a, b) =>
      Number(b.isGround) - Number(a.isGround) || count(b.set) - count(a.set) || b.pins.length - a.pins.length,
  );
  const settled: Known[] = [];
  const open: Known[] = [];
  for (const net of order) (settled.every((s) => isApart(s.set, net.set)) ? settled : open).push(net);
  const odds = new Odds(settled, open, nets);
  const of = (net: Known): Unsettled => {
    const limited = only.get(net.set);
    const isLeft = (s: Known) => s !== net && !isApart(s.set, net.set);
    const among = nets.filter((s) => limited?.has(s.set) === true && isLeft(s));
    // Where none of several is left something was heard wrong, and it is held against all again.
    const isBegun = among.length > 0;
    return { net, candidates: odds.of(net, isBegun ? among : settled.filter(isLeft), isBegun) };
  };
  const reached = open.filter(isReached);
  const begun = reached.find((net) => only.has(net.set));
  return { settled, open, next: (begun ? [begun] : reached).map(of) };
}

/** For nets that beeped with one of several: those several. */
function onlyOneOf(
  { beeps = [] }: Traceable,
  { graph, points }: Pick<TracedNets, 'graph' | 'points'>,
): ReadonlyMap<string, ReadonlySet<string>> {
  const found = new Map<string, Set<string>>();
  for (const beep of beeps) {
    if (!isOneOf(beep)) continue;
    const [held, ...over] = points(beep);
    if (held === undefined || over.some((o) => graph.isJoined(held, o))) continue;
    const set = graph.setOf(held);
    const these = new Set(over.map((o) => graph.setOf(o)));
    const known = found.get(set);
    found.set(set, known ? new Set([...known].filter((k) => these.has(k))) : these);
  }
  return found;
}

/** How likely a net is one of those that are settled, from usual circuits and from how many pins are left. */
class Odds {
  private readonly supply: Known | undefined;
  private readonly pinsLeft: number;
  private readonly singles: number;
  private readonly newShare: number;

  constructor(settled: readonly Known[], open: readonly Known[], all: readonly Known[]) {
    const inside = (nets: readonly Known[]) =>
      nets.flatMap((n) => n.pins).reduce((sum, pin) => sum + 1 - groundShare(pin) - supplyShare(pin), 0);
    this.supply = supplyAmong(settled);
    const own = settled.filter((s) => !s.isGround && s !== this.supply);
    this.pinsLeft = Math.max(1, inside(open));
    this.singles = own.filter((s) => s.pins.length < 2).length;
    const expected = inside(all) / PINS_A_NET;
    this.newShare = Math.min(MOST_NEW, Math.max(LEAST_NEW, (expected - own.length) / this.pinsLeft));
  }

  /** The chances of the candidates; what they lack to one is that it is none of them. */
  of(net: Known, left: readonly Known[], isOneOfThem: boolean): Candidate[] {
    const isMany = net.pins.length > 1;
    const share = (of: (pin: NetPin) => number) => Math.max(0, ...net.pins.map(of));
    const [ground, supply] = [share(groundShare), share(supplyShare)];
    const rest = Math.max(0.01, 1 - ground - supply);
    const fresh = rest * (isMany ? MOST_NEW : this.newShare);
    const toSingle = Math.min(1, this.singles / this.pinsLeft);
    const own = left.filter((l) => !l.isGround && l !== this.supply);
    const many = own.filter((l) => l.pins.length > 1).length;
    const weights = left.map((l) => {
      if (l.isGround) return ground;
      const factor = l.pins.reduce(
        (least, other) => Math.min(least, ...net.pins.map((pin) => pairFactor(pin, other))),
        1,
      );
      if (l === this.supply) return supply * factor;
      const joining = rest - fresh;
      const usual =
        l.pins.length < 2
          ? (joining * toSingle) / Math.max(1, own.length - many)
          : (joining * (1 - toSingle)) / Math.max(1, many);
      return usual * factor;
    });
    const total = weights.reduce((a, b) => a + b, 0) + (isOneOfThem ? 0 : fresh);
    return left
      .map((l, i): Candidate => ({ net: l, chance: total > 0 ? weights[i]! / total : 1 / left.length }))
      .sort((a, b) => b.chance - a.chance);
  }
}

/** The net that most supply pins are on; undefined where none is settled. */
function supplyAmong(settled: readonly Known[]): Known | undefined {
  const SURE = 0.85;
  const feeding = (net: Known) => net.pins.filter((pin) => supplyShare(pin) > SURE).length;
  const best = settled
    .filter((s) => !s.isGround)
    .reduce<Known | undefined>((b, s) => (feeding(s) > (b ? feeding(b) : 0) ? s : b), undefined);
  return best;
}
