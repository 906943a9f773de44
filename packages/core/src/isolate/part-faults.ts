import { ELECTROLYTIC_F, isPolarised, type LayerCircuit, type LayerPart } from '../circuit/index.ts';

/** One way in which one part can have failed. */
export interface PartFault {
  readonly ref: string;
  /** "open", "short", "drifted up", ... */
  readonly mode: string;
  /** How often, against a resistor that has drifted (common practice). */
  readonly weight: number;
  /** The circuit with this fault in it. */
  readonly apply: (circuit: LayerCircuit) => LayerCircuit;
}

/** Between pins of a junction that has broken down, ohm; of one that leaks; of a dirty contact. */
const SHORT_OHM = 1;
const LEAKY_OHM = 10_000;
const DIRTY_OHM = 1000;
const OPEN_OHM = 1e9;
/** A stuck output of a chip reaches its rail through this, ohm. */
const STUCK_OHM = 50;

const replacing =
  (ref: string, parts: (part: LayerPart) => readonly LayerPart[]) =>
  (circuit: LayerCircuit): LayerCircuit => ({
    ...circuit,
    parts: circuit.parts.flatMap((p) => (p.ref === ref ? parts(p) : [p])),
  });

const valued = (ref: string, factor: number) =>
  replacing(ref, (p) => {
    const value = typeof p.value === 'number' ? p.value * factor : p.value;
    return [{ ...p, value }];
  });

const dead = (ref: string, state: 'open' | 'short') => replacing(ref, (p) => [{ ...p, value: state }]);

const resistorBetween = (
  ref: string,
  a: string | undefined,
  b: string | undefined,
  ohm: number,
): LayerPart[] =>
  a === undefined || b === undefined || a === b
    ? []
    : [{ ref, kind: 'resistor', pins: { a, b }, value: ohm, tolerance: 0 }];

/** Keeps the part and bridges two of its pins. */
const bridged = (ref: string, from: string, to: string, ohm: number) =>
  replacing(ref, (p) => [p, ...resistorBetween(`${ref}~`, p.pins[from], p.pins[to], ohm)]);

/** Takes the part out and puts resistors in its place. */
const instead = (ref: string, joints: readonly (readonly [from: string, to: string, ohm: number])[]) =>
  replacing(ref, (p) =>
    joints.flatMap(([from, to, ohm], i) => resistorBetween(`${ref}~${i}`, p.pins[from], p.pins[to], ohm)),
  );

/** A transistor that hardly amplifies, and a valve whose cathode is worn. */
const WORN_BF = 10;
const WORN_KG1 = 4000;
const worn = (ref: string) =>
  replacing(ref, (p) => {
    if (p.kind === 'bjt') return [{ ...p, params: { ...p.params, BF: WORN_BF } }];
    if (p.kind === 'triode') return [{ ...p, params: { ...p.params, KG1: WORN_KG1 } }];
    if (p.kind === 'pentode') return [{ ...p, params: { ...p.params, KG1: WORN_KG1 } }];
    return [p];
  });

type Way = readonly [mode: string, weight: number, apply: (circuit: LayerCircuit) => LayerCircuit];

function waysOf(p: LayerPart): readonly Way[] {
  const { ref } = p;
  switch (p.kind) {
    case 'resistor':
      return [
        ['open', 1.2, dead(ref, 'open')],
        ['drifted up', 0.5, valued(ref, 1.4)],
        ['drifted up', 0.4, valued(ref, 2)],
        ['drifted up', 0.3, valued(ref, 4)],
        ['drifted down', 0.2, valued(ref, 0.6)],
        ['short', 0.1, dead(ref, 'short')],
      ];
    case 'capacitor': {
      const { value } = p;
      const isWet = isPolarised(p) || (typeof value === 'number' && value >= ELECTROLYTIC_F);
      const more = isWet ? 3 : 0.6;
      return [
        ['open', 1 * more, dead(ref, 'open')],
        ['lost its capacity', 1 * more, valued(ref, 0.1)],
        ['short', 0.7 * more, dead(ref, 'short')],
        ['leaky', 0.8 * more, bridged(ref, 'a', 'b', LEAKY_OHM)],
      ];
    }
    case 'diode':
    case 'led':
    case 'zener':
      return [
        ['short', 1, instead(ref, [['a', 'k', SHORT_OHM]])],
        ['open', 0.8, instead(ref, [['a', 'k', OPEN_OHM]])],
        ['leaky', 0.4, bridged(ref, 'a', 'k', LEAKY_OHM)],
        ...(p.kind === 'zener' ? ([['voltage too low', 0.4, valued(ref, 0.6)]] as const) : []),
      ];
    case 'bjt':
      return [
        ['dead, junctions open', 1, instead(ref, [['c', 'e', OPEN_OHM], ['b', 'e', OPEN_OHM]])],
        ['short, collector to emitter', 1, instead(ref, [['c', 'e', SHORT_OHM], ['b', 'e', OPEN_OHM]])],
        ['short, base to emitter', 0.5, instead(ref, [['b', 'e', SHORT_OHM], ['c', 'e', OPEN_OHM]])],
        ['short, collector to base', 0.5, bridged(ref, 'c', 'b', SHORT_OHM)],
        ['leaky, collector to emitter', 0.5, bridged(ref, 'c', 'e', LEAKY_OHM)],
        ['lost its gain', 0.5, worn(ref)],
      ]; // prettier-ignore
    case 'jfet':
    case 'mosfet':
      return [
        ['dead, open', 1, instead(ref, [['d', 's', OPEN_OHM]])],
        ['short, drain to source', 1, instead(ref, [['d', 's', SHORT_OHM]])],
        ['leaky gate', 0.8, bridged(ref, 'g', 's', LEAKY_OHM)],
        ['short, gate to drain', 0.4, bridged(ref, 'g', 'd', SHORT_OHM)],
      ];
    case 'triode':
    case 'pentode':
      return [
        ['no emission', 2, instead(ref, [['a', 'k', OPEN_OHM]])],
        ['worn, low emission', 2, worn(ref)],
        ['leaky grid', 0.8, bridged(ref, 'g', 'k', 100 * LEAKY_OHM)],
        ['short, grid to cathode', 0.5, bridged(ref, 'g', 'k', SHORT_OHM)],
      ];
    case 'opamp':
      return [
        ['output stuck at its upper rail', 0.7, instead(ref, [['vplus', 'out', STUCK_OHM]])],
        ['output stuck at its lower rail', 0.7, instead(ref, [['vminus', 'out', STUCK_OHM]])],
        ['dead, output open', 0.7, instead(ref, [['out', 'vminus', OPEN_OHM]])],
        ['short, its supply pins', 0.2, bridged(ref, 'vplus', 'vminus', SHORT_OHM)],
      ];
    case 'timer555':
      return [
        ['output stuck high', 0.7, instead(ref, [['vcc', 'out', STUCK_OHM]])],
        ['output stuck low', 0.7, instead(ref, [['out', 'gnd', STUCK_OHM]])],
      ];
    case 'potentiometer':
      return [
        ['wiper open', 2, instead(ref, [['1', '3', numberOf(p)], ['2', '3', OPEN_OHM]])],
        ['track open at pin 1', 0.7, instead(ref, [['2', '3', numberOf(p) / 2], ['1', '3', OPEN_OHM]])],
        ['track open at pin 3', 0.7, instead(ref, [['1', '2', numberOf(p) / 2], ['3', '1', OPEN_OHM]])],
      ]; // prettier-ignore
    case 'inductor':
      return [
        ['open', 1, dead(ref, 'open')],
        ['short', 0.3, dead(ref, 'short')],
      ];
    case 'transformer':
      return [
        ['primary open', 1, instead(ref, [['s1', 's2', 100]])],
        ['secondary open', 0.6, instead(ref, [['p1', 'p2', 1000]])],
      ];
    case 'switch':
    case 'jumper':
    case 'fuse':
      return [
        ['open', 2, dead(ref, 'open')],
        ...(p.kind === 'switch'
          ? ([['dirty contact', 2, instead(ref, [['a', 'b', DIRTY_OHM]])]] as const)
          : []),
      ];
    case 'load':
    case 'speaker':
    case 'headphone':
      return [
        ['open', 1, dead(ref, 'open')],
        ['short', 0.4, dead(ref, 'short')],
      ];
    case 'supply':
      return [
        ['gives nothing', 1.5, valued(ref, 0)],
        ['gives too little', 1.5, valued(ref, 0.6)],
        ['gives too much', 0.3, valued(ref, 1.4)],
      ];
    case 'capsule':
      return [
        ['dead, open', 1, instead(ref, [['out', 'gnd', OPEN_OHM]])],
        ['short', 0.4, instead(ref, [['out', 'gnd', SHORT_OHM]])],
      ];
    case 'regulator':
      return [
        ['dead, gives nothing', 1, instead(ref, [['in', 'gnd', OPEN_OHM], ['out', 'gnd', OPEN_OHM]])],
        ['short, in to out', 0.5, instead(ref, [['in', 'out', SHORT_OHM]])],
        ['gives too little', 0.5, valued(ref, 0.6)],
      ]; // prettier-ignore
    case 'changeover':
      return [
        ['open', 2, replacing(ref, (q) => [q.kind === 'changeover' ? { ...q, position: 'open' } : q])],
        ['dirty contact', 2, instead(ref, [['com', p.position === 'b' ? 'b' : 'a', DIRTY_OHM]])],
      ];
    case 'jack':
      return [
        ['switched contact open', 2, instead(ref, [['tip', 'tipSwitch', OPEN_OHM]])],
        ['short, tip to sleeve', 0.5, bridged(ref, 'tip', 'sleeve', SHORT_OHM)],
      ];
    case 'relay':
      return [
        ['coil open', 1, instead(ref, [['com', 'nc', SHORT_OHM], ['coilA', 'coilB', OPEN_OHM]])],
        ['contact open', 2, instead(ref, [['coilA', 'coilB', p.coilOhm ?? 300]])],
      ]; // prettier-ignore
    case 'signal':
    case 'clock':
    case 'box':
      return [];
  }
}

const numberOf = (p: LayerPart): number => (typeof p.value === 'number' ? p.value : 1000);

/** Every fault of a part that the dictionary knows, likelier ones with more weight. */
export const faultsOfPart = (part: LayerPart): PartFault[] =>
  waysOf(part).map(([mode, weight, apply]) => ({ ref: part.ref, mode, weight, apply }));
