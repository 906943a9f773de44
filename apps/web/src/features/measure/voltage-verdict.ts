import type { MainsHz, Readout } from '@zemble/contract';
import {
  evidenceSentence,
  formatQuantity,
  judgeOffset,
  judgeRipple,
  judgeVoltage,
  preparePath,
  reservoirAt,
  resolveLayer,
  type Entry,
  type Part,
  type SmallVerdict,
  type UnitDocument,
} from '@zemble/core';

/** What is said of an entry that is no reading of a part's value; the tone is null where nothing can be judged. */
export interface SpokenVerdict {
  readonly tone: SmallVerdict['kind'] | null;
  readonly sentence: string;
}

/** Parts that direct voltage harms. */
const SPEAKERS: readonly Part['kind'][] = ['speaker', 'headphone', 'load'];
/** Below this an output is meant to rest at nothing, V. */
const AT_REST_V = 0.1;

const toSpoken = (head: string, { kind, sentence }: SmallVerdict): SpokenVerdict => ({
  tone: kind,
  sentence: `${head}: ${sentence}`,
});

/** What is computed of a unit that is on. */
export interface Computed {
  /** Volt by net, as the voltmeter would show it. */
  readonly shown: ReadonlyMap<string, number>;
  /** Current that each supply gives, A. */
  readonly supplies: Readonly<Record<string, number>>;
  /** Frequency of the mains, Hz. */
  readonly mainsHz: MainsHz;
}

/** What a voltage says: against what the meter should show, as an offset at a speaker, or as ripple of a supply. */
export function tellVoltage(
  entry: Extract<Entry, { kind: 'voltage' }>,
  document: UnitDocument,
  { shown, supplies, mainsHz }: Computed,
): SpokenVerdict {
  const { at, net, value, unit } = entry;
  const expected = net === null ? undefined : shown.get(net);
  if (unit === 'Vpp') {
    const farad = net === null ? 0 : reservoirAt(resolveLayer(document.circuit, 'found'), net);
    const supply = document.circuit.parts.find(
      (p) => p.kind === 'supply' && (p.pins.plus === net || p.pins.minus === net),
    );
    const isRegulated = document.circuit.parts.some((p) => p.kind === 'regulator' && p.pins.out === net);
    if (!supply && !isRegulated && farad === 0)
      return { tone: null, sentence: `${at}: ${formatQuantity(value, 'V', { digits: 3 })} peak to peak.` };
    const ampere = (supply && supplies[supply.ref]) ?? 0;
    return toSpoken(at, judgeRipple(value, expected ?? 0, { farad, ampere, mainsHz }));
  }
  if (unit === 'Vrms')
    return { tone: null, sentence: `${at}: ${formatQuantity(value, 'V', { digits: 3 })} rms of tone.` };
  const isSpeaker = document.circuit.parts.some(
    (p) => SPEAKERS.includes(p.kind) && net !== null && Object.values(p.pins).includes(net),
  );
  // An output that sits at half its supply does so behind a coupling capacitor or in a bridge.
  if (isSpeaker && Math.abs(expected ?? 0) < AT_REST_V) return toSpoken(at, judgeOffset(value));
  if (expected === undefined)
    return { tone: null, sentence: `${at}: ${formatQuantity(value, 'V', { digits: 4 })}.` };
  return toSpoken(at, judgeVoltage(value, expected));
}

/** What a value of a readout says: a direct voltage is judged as one that was read at its net. */
export function tellReadout(
  readout: Readout,
  value: number,
  document: UnitDocument,
  computed: Computed,
): SpokenVerdict {
  if (readout.kind !== 'voltage')
    return { tone: null, sentence: `${readout.name}: taken for the bench column.` };
  return tellVoltage(
    { kind: 'voltage', at: readout.name, net: readout.net ?? null, value, unit: 'V' },
    document,
    computed,
  );
}

export function tellSeen(
  { path, circuit }: UnitDocument,
  { at, saw }: Extract<Entry, { kind: 'seen' }>,
): SpokenVerdict {
  const prepared = preparePath(path ?? { blocks: [], links: [] }, circuit);
  return { tone: null, sentence: evidenceSentence(prepared, { at, saw }) };
}
