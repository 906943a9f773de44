import type { PartKind } from '@zemble/contract';
import type { Part } from '../circuit/index.ts';
import { ownNet } from './ends.ts';

/** A pin of a net that is to be named. */
export interface NetPin {
  readonly part: Part;
  readonly pin: string;
}

/** Pins that a net is called after, the most telling first: what drives it, then what it controls. */
const TELLING: Readonly<Partial<Record<PartKind, readonly string[]>>> = {
  opamp: ['out', 'minus', 'plus'],
  timer555: ['out', 'thr', 'trig', 'dis', 'ctrl', 'reset'],
  regulator: ['out', 'in'],
  bjt: ['b', 'c', 'e'],
  jfet: ['g', 'd', 's'],
  mosfet: ['g', 'd', 's'],
  triode: ['g', 'a', 'k'],
  pentode: ['g', 'a', 'g2', 'k'],
  capsule: ['out'],
  jack: ['tip', 'ring', 'sleeve'],
};

/** Pins of supplies, with the name of the net that they are on. */
const SUPPLIED: Readonly<Partial<Record<PartKind, Readonly<Record<string, string>>>>> = {
  opamp: { vplus: 'vcc', vminus: 'vee' },
  timer555: { vcc: 'vcc' },
  supply: { plus: 'vcc' },
  signal: { plus: 'in' },
  load: { a: 'out' },
};
/** What beats a supply pin in naming its net: "vcc" is said of what feeds it and what it feeds. */
const RANKS = { role: 0, driven: 1, end: 20 } as const;

/** What a net may be called after one of its pins, and how telling that is, the lowest first. */
export interface NetName {
  readonly name: string;
  readonly rank: number;
}

/** The names that a pin gives its net. */
export function namesAfter({ part, pin }: NetPin): readonly NetName[] {
  const own = ownNet(part.ref, pin);
  const at = TELLING[part.kind]?.indexOf(pin) ?? -1;
  const role = SUPPLIED[part.kind]?.[pin];
  const plain = { name: own, rank: at < 0 ? RANKS.end : RANKS.driven + at };
  return role === undefined ? [plain] : [{ name: role, rank: RANKS.role }, plain];
}
