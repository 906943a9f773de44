import type { FaultMode } from './symptom.ts';

/** What is usual for a kind of block. Weights and shares of fault modes are common practice, of use for their order. */
export interface BlockKind {
  readonly name: string;
  /** How often it is the culprit, against a plain amplifier stage. */
  readonly weight: number;
  /** Minutes to get at it in a unit that can be opened. */
  readonly minutes: number;
  /** Shares of the ways in which it fails. */
  readonly modes: Readonly<Partial<Record<FaultMode, number>>>;
  /** It can be judged by itself, unplugged: a fuse by the ohmmeter, a cable by another. */
  readonly coldCheck?: string;
  /** Connected to the mains, or charged from it, while the unit is plugged in. */
  readonly isMainsSide?: true;
  /** Carries more than 60 V when on. */
  readonly isHighTension?: true;
  /** Feeds others rather than passing audio. */
  readonly isSupport?: true;
}

const DEAD = { none: 0.8, weak: 0.1, hum: 0.1 } as const;
const STAGE = { none: 0.4, weak: 0.2, distorted: 0.25, hum: 0.05, drags: 0.1 } as const;
/** Output transistors that are shorted are the commonest fault of a power amplifier. */
const POWER = { none: 0.35, weak: 0.1, distorted: 0.25, hum: 0.05, drags: 0.25 } as const;
const CONTACT = { none: 0.6, weak: 0.2, hum: 0.2 } as const;
const FEED = { none: 0.62, hum: 0.25, weak: 0.1, sags: 0.03 } as const;
const LOGIC = { none: 0.75, distorted: 0.15, drags: 0.1 } as const;

export const BLOCK_KINDS: readonly BlockKind[] = [
  { name: 'cable', weight: 3, minutes: 0.5, modes: CONTACT, coldCheck: 'beep it end to end, or use another' },
  { name: 'socket', weight: 3, minutes: 2, modes: CONTACT, coldCheck: 'beep its contacts, plugged and unplugged' },
  { name: 'joint', weight: 2.5, minutes: 3, modes: CONTACT },
  { name: 'switch', weight: 3, minutes: 2, modes: CONTACT, coldCheck: 'beep its contacts in each position' },
  { name: 'control', weight: 2.5, minutes: 2, modes: CONTACT, coldCheck: 'measure end to end and wiper to ends' },
  { name: 'relay', weight: 2, minutes: 3, modes: CONTACT },
  { name: 'source', weight: 1, minutes: 0.5, modes: DEAD },
  { name: 'microphone', weight: 1.5, minutes: 2, modes: { none: 0.5, weak: 0.35, hum: 0.15 } },
  { name: 'sensor', weight: 1.2, minutes: 3, modes: DEAD },
  { name: 'coupling capacitor', weight: 2.5, minutes: 2, modes: { none: 0.45, weak: 0.35, distorted: 0.15, hum: 0.05 } },
  { name: 'stage', weight: 1, minutes: 3, modes: STAGE },
  { name: 'opamp stage', weight: 0.8, minutes: 3, modes: STAGE },
  { name: 'valve stage', weight: 2, minutes: 4, modes: STAGE, isHighTension: true },
  { name: 'tone control', weight: 1.2, minutes: 3, modes: CONTACT },
  { name: 'mixer', weight: 1, minutes: 3, modes: STAGE },
  { name: 'power amplifier', weight: 1.5, minutes: 3, modes: POWER },
  { name: 'speaker', weight: 1, minutes: 1, modes: { none: 0.6, distorted: 0.3, weak: 0.1 }, coldCheck: 'measure its direct resistance, and tap a battery on it' },
  { name: 'converter', weight: 0.6, minutes: 5, modes: LOGIC },
  { name: 'processor', weight: 0.5, minutes: 5, modes: LOGIC, isSupport: true },
  { name: 'memory', weight: 0.4, minutes: 6, modes: LOGIC, isSupport: true },
  { name: 'clock', weight: 0.5, minutes: 4, modes: { none: 0.9, weak: 0.1 }, isSupport: true },
  { name: 'mute line', weight: 1, minutes: 3, modes: { none: 0.9, distorted: 0.1 }, isSupport: true },
  { name: 'battery', weight: 3, minutes: 0.5, modes: FEED, coldCheck: 'measure it under load', isSupport: true },
  { name: 'adapter', weight: 2, minutes: 0.5, modes: FEED, coldCheck: 'measure its output unplugged from the unit', isSupport: true },
  { name: 'regulator', weight: 1.2, minutes: 3, modes: FEED, isSupport: true },
  { name: 'reservoir capacitor', weight: 2.5, minutes: 3, modes: { hum: 0.6, none: 0.2, weak: 0.2 }, isSupport: true },
  { name: 'rectifier', weight: 1, minutes: 3, modes: { none: 0.6, hum: 0.4 }, coldCheck: 'diode test, unplugged and discharged', isSupport: true },
  { name: 'supply', weight: 2, minutes: 3, modes: FEED, isSupport: true },
  { name: 'fuse', weight: 2, minutes: 1, modes: { none: 1 }, coldCheck: 'unplug, take it out and measure it', isMainsSide: true, isSupport: true },
  { name: 'mains inlet', weight: 1, minutes: 2, modes: { none: 1 }, coldCheck: 'beep lead, inlet and switch, unplugged', isMainsSide: true, isSupport: true },
  { name: 'mains transformer', weight: 0.6, minutes: 4, modes: { none: 0.9, hum: 0.1 }, coldCheck: 'measure its windings, unplugged', isMainsSide: true, isSupport: true },
  { name: 'switch-mode primary', weight: 2, minutes: 8, modes: { none: 0.9, weak: 0.1 }, coldCheck: 'measure its fuse, rectifier and start-up parts, unplugged and discharged', isMainsSide: true, isSupport: true },
  { name: 'high tension supply', weight: 2, minutes: 5, modes: FEED, isHighTension: true, isSupport: true },
]; // prettier-ignore

/** Other words for kinds. */
const ALIASES: ReadonlyMap<string, string> = new Map(
  Object.entries({
    amplifier: 'stage',
    preamplifier: 'stage',
    preamp: 'stage',
    amp: 'power amplifier',
    jack: 'socket',
    connector: 'socket',
    plug: 'cable',
    pot: 'control',
    potentiometer: 'control',
    loudspeaker: 'speaker',
    psu: 'supply',
    'power supply': 'supply',
    chip: 'opamp stage',
    opamp: 'opamp stage',
    valve: 'valve stage',
    capacitor: 'coupling capacitor',
    cpu: 'processor',
    controller: 'processor',
    logic: 'processor',
    decoder: 'processor',
    timer: 'processor',
    display: 'processor',
    driver: 'stage',
    ram: 'memory',
    rom: 'memory',
    crystal: 'clock',
    oscillator: 'clock',
    filter: 'stage',
    effect: 'stage',
    buffer: 'opamp stage',
    'power stage': 'power amplifier',
    'output stage': 'power amplifier',
    'input stage': 'stage',
    transistor: 'stage',
    equaliser: 'tone control',
    equalizer: 'tone control',
    volume: 'control',
    input: 'socket',
    output: 'socket',
    headphone: 'speaker',
    headphones: 'speaker',
    pickup: 'sensor',
    head: 'sensor',
  }),
);

const UNKNOWN: BlockKind = {
  name: 'block',
  weight: 1,
  minutes: 1,
  modes: { none: 0.6, weak: 0.15, distorted: 0.15, hum: 0.1 },
};

/** Words that put a block on the mains side, or at high tension, whatever else it is called. */
const MAINS_WORDS =
  /\bmains|\bprimar(?:y|ies)\b|switch.?mode|\bsmps\b|\binlet\b|\bline (?:cord|side|filter|input|voltage)|\blive\b|\b(?:230|240|220|120|110|115) ?v/i;
const HIGH_TENSION_WORDS =
  /high.?tension|high.?voltage|\bh\.?t\.?\b|\bb ?\+|\bvalves?\b|\btubes?\b|\b(?:anode|plate) supply|\btriode|\bpentode|\beht\b/i;

/**
 * What is usual for a kind by its name; an unknown kind is an ordinary block. Where the kind's words or the block's own
 * name speak of the mains or of high tension, it has that hazard, whatever kind it is.
 */
export function blockKind(kind: string | undefined, name = ''): BlockKind {
  const wanted = (kind ?? '').trim().toLowerCase();
  const proper = ALIASES.get(wanted) ?? wanted;
  const known = BLOCK_KINDS.find((k) => k.name === proper) ?? UNKNOWN;
  const words = `${kind ?? ''} ${name}`;
  const isMainsSide = known.isMainsSide === true || (MAINS_WORDS.test(words) && !SECONDARY_WORDS.test(words));
  const isHighTension = known.isHighTension === true || HIGH_TENSION_WORDS.test(words);
  return {
    ...known,
    ...(isMainsSide ? { isMainsSide: true } : {}),
    ...(isHighTension ? { isHighTension: true } : {}),
  };
}
/** Whether a word is a kind of block, or another word for one. */
export const isBlockKind = (kind: string): boolean => {
  const wanted = kind.trim().toLowerCase();
  return (
    wanted === '' ||
    wanted === UNKNOWN.name ||
    ALIASES.has(wanted) ||
    BLOCK_KINDS.some((k) => k.name === wanted)
  );
};
/** Words of what the mains side only feeds. */
const SECONDARY_WORDS = /\bsecondary\b|\bhum\b/i;
