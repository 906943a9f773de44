import {
  ELECTROLYTIC_F,
  isPolarised,
  type LayerCircuit,
  type LayerPart,
} from '../../circuit/circuit/index.ts';
import { isPType, modelParameters } from '../../circuit/models/index.ts';

/** One way in which one part can have failed. */
export interface PartFault {
  readonly ref: string;
  /** "open", "short", "drifted up", ... */
  readonly mode: string;
  /** How often, against a resistor that has drifted (common practice). */
  readonly weight: number;
  /** Which of several severities of one mode this is, in their order. */
  readonly grade?: { readonly index: number; readonly of: number };
  /** The nets that the part holds, where it is a supply: what is measured there tells before it is blamed. */
  readonly rails?: readonly string[];
  /** The circuit with this fault in it. */
  readonly apply: (circuit: LayerCircuit) => LayerCircuit;
}

/** Between pins of a junction that has broken down, ohm; and of a dirty contact. */
const SHORT_OHM = 1;
const DIRTY_OHM = 1000;
/** Severities of what leaks, ohm, from near a short on; and of what has drifted, as factors. */
const LEAKS_OHM = [100, 300, 1e3, 3e3, 1e4, 3e4, 1e5, 3e5, 1e6];
const GRID_LEAKS_OHM = [1e4, 1e5, 1e6, 1e7];
const SHORTS_OHM = [0.02, 0.4, 4, 30];
const DRIFTS_UP = [1.25, 1.55, 1.95, 2.45, 3.1];
const DRIFTS_DOWN = [0.8, 0.64, 0.51, 0.41, 0.33];
/** A value that is not the one meant, or a track that is nearly gone: to thirty times and a thirtieth; a joint in series further up. */
const FAR_UP = [4, 5.5, 7.5, 10, 14, 20, 30, 60, 150, 500];
const FAR_DOWN = [0.25, 0.18, 0.13, 0.1, 0.07, 0.05, 0.033];
/** What is left of a joint that has gone bad, ohm. */
const JOINTS_OHM = [1e3, 3e3, 1e4, 3e4, 1e5, 3e5, 1e6, 1e7, 1e8];
/** Into or out of a chip's input that leaks, ohm. */
const INPUT_LEAKS_OHM = [1e4, 3e4, 1e5, 3e5, 1e6];
const LOSSES = [0.4, 0.1, 0.02];
const GAINS_LEFT = [0.3, 0.1, 0.03];
const SUPPLIES_LOW = [0.85, 0.7, 0.55, 0.4, 0.25];
const SUPPLIES_HIGH = [1.15, 1.3, 1.5];
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

/** The joint of one pin has gone bad: what is left of it is in series. */
const joint = (ref: string, pin: string, ohm: number) =>
  replacing(ref, (p) => {
    const net = (p.pins as Readonly<Record<string, string>>)[pin];
    if (net === undefined) return [p];
    const inside = `${ref}~${pin}`;
    return [
      { ...p, pins: { ...p.pins, [pin]: inside } } as LayerPart,
      ...resistorBetween(`${ref}~`, net, inside, ohm),
    ];
  });
const joints = (ref: string, weight: number, ...pins: readonly string[]): Way[] =>
  pins.map((pin) => [`bad joint at ${pin}`, weight, JOINTS_OHM.map((ohm) => joint(ref, pin, ohm))]);

/** Fitted with two of its pins exchanged. */
const exchanged = (ref: string, one: string, other: string) =>
  replacing(ref, (p) => {
    const pins = p.pins as Readonly<Record<string, string>>;
    return [{ ...p, pins: { ...pins, [one]: pins[other], [other]: pins[one] } } as LayerPart];
  });

/** A transistor of the other polarity, as its type would be there. */
const mirrored = (ref: string) =>
  replacing(ref, (p) => {
    if (p.kind !== 'bjt') return [p];
    const params = modelParameters<'bjt'>(p);
    return [{ ...p, model: undefined, params, polarity: isPType(p) ? 'npn' : 'pnp' } as LayerPart];
  });

/** A valve whose cathode is worn: its KG1. */
const WORN_KG1 = 4000;
const worn = (ref: string, gainLeft: number) =>
  replacing(ref, (p) => {
    if (p.kind === 'bjt') {
      const { BF } = modelParameters<'bjt'>(p);
      return [{ ...p, params: { ...p.params, BF: BF * gainLeft } }];
    }
    if (p.kind === 'triode') return [{ ...p, params: { ...p.params, KG1: WORN_KG1 } }];
    if (p.kind === 'pentode') return [{ ...p, params: { ...p.params, KG1: WORN_KG1 } }];
    return [p];
  });

/** One junction of a transistor is left, as a diode; the other's lead has come off inside. */
const oneJunction = (ref: string, left: 'base to emitter' | 'base to collector') =>
  replacing(ref, (p) => {
    if (p.kind !== 'bjt') return [p];
    const { b, c, e } = p.pins;
    const other = left === 'base to emitter' ? e : c;
    if (b === undefined || other === undefined) return [];
    const pins = isPType(p) ? { a: other, k: b } : { a: b, k: other };
    const { IS } = modelParameters<'bjt'>(p);
    return [{ ref, kind: 'diode', pins, value: null, params: { IS } }];
  });

type Apply = (circuit: LayerCircuit) => LayerCircuit;
/** One mode of failing: its weight, and the circuit with it, or with each of its severities. */
type Way = readonly [mode: string, weight: number, apply: Apply | readonly Apply[]];

function waysOf(p: LayerPart): readonly Way[] {
  const { ref } = p;
  switch (p.kind) {
    case 'resistor':
      return [
        ['open', 1.2, dead(ref, 'open')],
        ['drifted up', 1.2, DRIFTS_UP.map((factor) => valued(ref, factor))],
        ['drifted down', 0.4, DRIFTS_DOWN.map((factor) => valued(ref, factor))],
        ['far too large, or a bad joint', 0.4, FAR_UP.map((factor) => valued(ref, factor))],
        ['far too small', 0.15, FAR_DOWN.map((factor) => valued(ref, factor))],
        ['short', 0.15, dead(ref, 'short')],
      ];
    case 'capacitor': {
      const { value } = p;
      const isWet = isPolarised(p) || (typeof value === 'number' && value >= ELECTROLYTIC_F);
      const more = isWet ? 3 : 0.6;
      return [
        ['open', 1 * more, dead(ref, 'open')],
        ['lost its capacity', 1 * more, LOSSES.map((factor) => valued(ref, factor))],
        ['short', 0.7 * more, SHORTS_OHM.map((ohm) => bridged(ref, 'a', 'b', ohm))],
        ['leaky', 0.8 * more, LEAKS_OHM.map((ohm) => bridged(ref, 'a', 'b', ohm))],
      ];
    }
    case 'diode':
    case 'led':
    case 'zener':
      return [
        ['short', 1, SHORTS_OHM.map((ohm) => bridged(ref, 'a', 'k', ohm))],
        ['open', 0.8, instead(ref, [['a', 'k', OPEN_OHM]])],
        ['leaky', 0.4, LEAKS_OHM.map((ohm) => bridged(ref, 'a', 'k', ohm))],
        ['reversed', 0.15, exchanged(ref, 'a', 'k')],
        ...joints(ref, 0.15, 'a'),
        ...(p.kind === 'zener'
          ? ([['voltage too low', 0.4, DRIFTS_DOWN.map((factor) => valued(ref, factor))]] as const)
          : []),
      ];
    case 'bjt':
      return [
        ['dead, junctions open', 0.7, instead(ref, [['c', 'e', OPEN_OHM], ['b', 'e', OPEN_OHM]])],
        ['emitter open', 0.4, oneJunction(ref, 'base to collector')],
        ['collector open', 0.4, oneJunction(ref, 'base to emitter')],
        ['short, collector to emitter', 1, SHORTS_OHM.map((ohm) => bridged(ref, 'c', 'e', ohm))],
        ['short, base to emitter', 0.5, SHORTS_OHM.map((ohm) => bridged(ref, 'b', 'e', ohm))],
        ['short, collector to base', 0.5, SHORTS_OHM.map((ohm) => bridged(ref, 'c', 'b', ohm))],
        ['leaky, collector to emitter', 0.5, LEAKS_OHM.map((ohm) => bridged(ref, 'c', 'e', ohm))],
        ['leaky, base to emitter', 0.2, LEAKS_OHM.map((ohm) => bridged(ref, 'b', 'e', ohm))],
        ['leaky, collector to base', 0.3, LEAKS_OHM.map((ohm) => bridged(ref, 'c', 'b', ohm))],
        ['lost its gain', 0.5, GAINS_LEFT.map((left) => worn(ref, left))],
        ['collector and emitter exchanged', 0.15, exchanged(ref, 'c', 'e')],
        ['base and emitter exchanged', 0.05, exchanged(ref, 'b', 'e')],
        ['base and collector exchanged', 0.05, exchanged(ref, 'b', 'c')],
        ['of the other polarity', 0.1, mirrored(ref)],
        ...joints(ref, 0.12, 'c', 'b', 'e'),
      ]; // prettier-ignore
    case 'jfet':
    case 'mosfet':
      return [
        ['dead, open', 1, instead(ref, [['d', 's', OPEN_OHM]])],
        ['short, drain to source', 1, SHORTS_OHM.map((ohm) => bridged(ref, 'd', 's', ohm))],
        ['leaky, drain to source', 0.4, LEAKS_OHM.map((ohm) => bridged(ref, 'd', 's', ohm))],
        ['short, gate to source', 0.4, SHORTS_OHM.map((ohm) => bridged(ref, 'g', 's', ohm))],
        ['leaky, gate to source', 0.6, LEAKS_OHM.map((ohm) => bridged(ref, 'g', 's', ohm))],
        ['short, gate to drain', 0.4, SHORTS_OHM.map((ohm) => bridged(ref, 'g', 'd', ohm))],
        ['leaky, gate to drain', 0.3, LEAKS_OHM.map((ohm) => bridged(ref, 'g', 'd', ohm))],
        ['drain and source exchanged', 0.05, exchanged(ref, 'd', 's')],
        ['gate and drain exchanged', 0.05, exchanged(ref, 'g', 'd')],
        ['gate and source exchanged', 0.05, exchanged(ref, 'g', 's')],
        ...joints(ref, 0.12, 'd', 'g', 's'),
      ];
    case 'triode':
    case 'pentode':
      return [
        ['no emission', 2, instead(ref, [['a', 'k', OPEN_OHM]])],
        ['worn, low emission', 2, worn(ref, 1)],
        ['leaky, grid to cathode', 0.8, GRID_LEAKS_OHM.map((ohm) => bridged(ref, 'g', 'k', ohm))],
        ['leaky, grid to anode', 0.3, GRID_LEAKS_OHM.map((ohm) => bridged(ref, 'g', 'a', ohm))],
        ['short, grid to cathode', 0.5, SHORTS_OHM.map((ohm) => bridged(ref, 'g', 'k', ohm))],
        ['short, anode to cathode', 0.2, SHORTS_OHM.map((ohm) => bridged(ref, 'a', 'k', ohm))],
        ...joints(ref, 0.2, 'a', 'g', 'k'),
      ];
    case 'opamp':
      return [
        ['output stuck at its upper rail', 0.7, instead(ref, [['vplus', 'out', STUCK_OHM]])],
        ['output stuck at its lower rail', 0.7, instead(ref, [['vminus', 'out', STUCK_OHM]])],
        ['dead, output open', 0.7, instead(ref, [['out', 'vminus', OPEN_OHM]])],
        ['short, its supply pins', 0.2, bridged(ref, 'vplus', 'vminus', SHORT_OHM)],
        ...(['plus', 'minus'] as const).flatMap((input): Way[] =>
          (['vplus', 'vminus'] as const).map((rail) => [
            `${input} input leaks to ${rail === 'vplus' ? 'its upper' : 'its lower'} rail`,
            0.12,
            INPUT_LEAKS_OHM.map((ohm) => bridged(ref, input, rail, ohm)),
          ]),
        ),
        ['short, both inputs', 0.05, SHORTS_OHM.map((ohm) => bridged(ref, 'plus', 'minus', ohm))],
        ['short, output to minus input', 0.05, SHORTS_OHM.map((ohm) => bridged(ref, 'out', 'minus', ohm))],
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
        ['gives too little', 1.5, SUPPLIES_LOW.map((factor) => valued(ref, factor))],
        ['gives too much', 0.3, SUPPLIES_HIGH.map((factor) => valued(ref, factor))],
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
        ['gives too little', 0.5, SUPPLIES_LOW.map((factor) => valued(ref, factor))],
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

function railsOf(part: LayerPart): { readonly rails?: readonly string[] } {
  if (part.kind === 'supply')
    return { rails: [part.pins.plus, part.pins.minus].filter((n) => n !== undefined) };
  return part.kind === 'regulator' && part.pins.out !== undefined ? { rails: [part.pins.out] } : {};
}

/** Every fault of a part that the dictionary knows, likelier ones with more weight; of one mode every severity by itself. */
export const faultsOfPart = (part: LayerPart): PartFault[] =>
  waysOf(part).flatMap(([mode, weight, apply]): PartFault[] => {
    const whose = { ref: part.ref, mode, ...railsOf(part) };
    if (typeof apply === 'function') return [{ ...whose, weight, apply }];
    const of = apply.length;
    return apply.map((each, index) => ({
      ...whose,
      weight: weight / of,
      grade: { index, of },
      apply: each,
    }));
  });
