import type { LayerCircuit, Part } from '../../circuit/circuit/index.ts';
import { formatQuantity } from '../../base/quantity/index.ts';
import type { SmallVerdict } from './small-verdicts.ts';

/** Direct voltages by net, V; the ground need not be among them. */
export type VoltsByNet = ReadonlyMap<string, number>;

/** A bias point within the first share of the computed one is right, within the second at the edge (common practice). */
const RIGHT_SHARE = 0.08;
const EDGE_SHARE = 0.15;
/** Never told closer than this, V. */
const RIGHT_FLOOR_V = 0.05;
const EDGE_FLOOR_V = 0.1;

/** Judges a direct voltage, V, against the computed one. */
export function judgeVoltage(measured: number, expected: number): SmallVerdict {
  const off = measured - expected;
  const size = Math.abs(off);
  const sentence = `${formatQuantity(measured, 'V', { digits: 3 })}, ${formatQuantity(size, 'V', { digits: 2 })} ${off < 0 ? 'below' : 'above'} the computed ${formatQuantity(expected, 'V', { digits: 3 })}`;
  if (size <= Math.max(RIGHT_FLOOR_V, RIGHT_SHARE * Math.abs(expected))) return { kind: 'in', sentence };
  return {
    kind: size <= Math.max(EDGE_FLOOR_V, EDGE_SHARE * Math.abs(expected)) ? 'edge' : 'out',
    sentence,
  };
}

/** Least supply at which a type works to its data sheet, and the most it stands, V across its pins (data sheets, from memory). */
const SUPPLY_LIMITS: Readonly<Record<string, readonly [least: number, most: number]>> = {
  TL071: [7, 36],
  TL072: [7, 36],
  TL074: [7, 36],
  TL082: [7, 36],
  NE5532: [6, 40],
  NE5534: [6, 40],
  LM358: [3, 32],
  LM324: [3, 32],
  RC4558: [8, 36],
  UA741: [8, 36],
  OP07: [6, 36],
  timer555: [4.5, 16],
};
const SUPPLY_PINS: Partial<Record<Part['kind'], readonly [plus: string, minus: string]>> = {
  opamp: ['vplus', 'vminus'],
  timer555: ['vcc', 'gnd'],
};

export interface SupplyVerdict extends SmallVerdict {
  readonly ref: string;
  /** Across its supply pins, V. */
  readonly volt: number;
}

/** Every chip whose supply pins have a known voltage, judged against what its type needs and stands. */
export function supplyVerdicts(
  circuit: Pick<LayerCircuit, 'ground' | 'parts'>,
  volts: VoltsByNet,
): SupplyVerdict[] {
  const at = (net: string | undefined) => (net === circuit.ground ? 0 : net && volts.get(net));
  return circuit.parts.flatMap((part): SupplyVerdict[] => {
    const pins = SUPPLY_PINS[part.kind];
    if (!pins) return [];
    const [plus, minus] = [at(part.pins[pins[0]]), at(part.pins[pins[1]])];
    if (typeof plus !== 'number' || typeof minus !== 'number') return [];
    const volt = plus - minus;
    const type = part.kind === 'timer555' ? 'timer555' : (part.model ?? '').toUpperCase();
    const limits = SUPPLY_LIMITS[type];
    const text = `${part.ref}: ${formatQuantity(volt, 'V', { digits: 3 })} across its supply pins`;
    if (!limits) return [{ ref: part.ref, volt, kind: 'in', sentence: `${text}; its limits are not known` }];
    const [least, most] = limits;
    if (volt < least)
      return [{ ref: part.ref, volt, kind: 'out', sentence: `${text}, it needs at least ${least} V` }];
    if (volt > most)
      return [{ ref: part.ref, volt, kind: 'out', sentence: `${text}, it stands at most ${most} V` }];
    return [{ ref: part.ref, volt, kind: 'in', sentence: `${text}, within ${least} to ${most} V` }];
  });
}

export interface RestingCurrent {
  /** The resistor the current is read off. */
  readonly ref: string;
  /** Pins of active parts on either side: "Q101 e". */
  readonly through: readonly string[];
  /** A, by the measured voltages and the resistor as it is. */
  readonly measured: number;
  /** A, by the computed voltages; undefined where they are not there. */
  readonly computed: number | undefined;
  readonly tone: SmallVerdict['kind'] | null;
}

const ACTIVE: readonly Part['kind'][] = ['bjt', 'jfet', 'mosfet', 'triode', 'pentode', 'opamp', 'capsule'];
/** A quiescent current within the first share of the computed one is right, within the second at the edge (common practice). */
const CURRENT_RIGHT = 0.15;
const CURRENT_EDGE = 0.3;

/**
 * Quiescent currents without breaking a lead: the voltage across a resistor whose both ends were measured, over its value.
 * Resistors at an active part come first.
 */
export function restingCurrents(
  circuit: LayerCircuit,
  measured: VoltsByNet,
  computed: VoltsByNet,
): RestingCurrent[] {
  const at = (volts: VoltsByNet, net: string) => (net === circuit.ground ? 0 : volts.get(net));
  // A supply's net is everybody's: it tells nothing of whose current it is.
  const shared = new Set(
    circuit.parts.flatMap((p) => (p.kind === 'supply' ? Object.values(p.pins) : [])).concat(circuit.ground),
  );
  const found = circuit.parts.flatMap((part): RestingCurrent[] => {
    const ohm = part.value;
    const { a, b } = part.pins;
    if (part.kind !== 'resistor' || typeof ohm !== 'number' || a === undefined || b === undefined) return [];
    const across = (volts: VoltsByNet) => {
      const [high, low] = [at(volts, a), at(volts, b)];
      return high === undefined || low === undefined ? undefined : Math.abs(high - low) / ohm;
    };
    const current = across(measured);
    if (current === undefined) return [];
    const wanted = across(computed);
    const through = circuit.parts
      .filter((p) => ACTIVE.includes(p.kind))
      .flatMap((p) =>
        Object.entries(p.pins)
          .filter(([, net]) => !shared.has(net) && (net === a || net === b))
          .map(([pin]) => `${p.ref} ${pin}`),
      );
    const share = wanted === undefined || wanted === 0 ? null : Math.abs(current / wanted - 1);
    const tone =
      share === null ? null : share <= CURRENT_RIGHT ? 'in' : share <= CURRENT_EDGE ? 'edge' : 'out';
    return [{ ref: part.ref, through, measured: current, computed: wanted, tone }];
  });
  return found.sort((x, y) => Math.sign(y.through.length) - Math.sign(x.through.length));
}

/** Ripple of a supply, as a share of its direct voltage: behind a regulator or filter, and at the reservoir (common practice). */
const RIPPLE_GOOD = 0.01;
const RIPPLE_BAD = 0.1;
const LEAST_RESERVOIR_F = 22e-6;

/** Capacity from a net to ground that holds it up, F: the electrolytics there. */
export function reservoirAt(circuit: LayerCircuit, net: string): number {
  return circuit.parts.reduce((sum, p) => {
    const nets = Object.values(p.pins);
    const { value } = p;
    const holds =
      p.kind === 'capacitor' &&
      nets.includes(net) &&
      nets.includes(circuit.ground) &&
      typeof value === 'number';
    return holds && value >= LEAST_RESERVOIR_F ? sum + value : sum;
  }, 0);
}

/**
 * Judges a ripple, V peak to peak, on a supply of a direct voltage, V. With the reservoir and the load current known it is
 * compared with I/(2 f C), the fall between two peaks of a full-wave rectifier (textbook, an upper limit).
 *
 * @param load reservoir in F, load in A, mains frequency in Hz
 */
export function judgeRipple(
  ripple: number,
  direct: number,
  load?: { readonly farad: number; readonly ampere: number; readonly mainsHz: number },
): SmallVerdict {
  const share = Math.abs(direct) > 0 ? ripple / Math.abs(direct) : Number.POSITIVE_INFINITY;
  const text = `${formatQuantity(ripple, 'V', { digits: 2 })} of ripple on ${formatQuantity(direct, 'V', { digits: 3 })}`;
  if (share <= RIPPLE_GOOD) return { kind: 'in', sentence: `${text}: good` };
  const usual =
    load && load.farad > 0 && load.ampere > 0 ? load.ampere / (2 * load.mainsHz * load.farad) : null;
  const against =
    usual === null
      ? ''
      : `, ${formatQuantity(usual, 'V', { digits: 2 })} would be usual at a reservoir of ${formatQuantity(load!.farad, 'F')} on ${load!.mainsHz} Hz mains`;
  if (usual !== null && ripple > 2 * usual)
    return { kind: 'out', sentence: `${text}${against}: it has dried out, or half the rectifier is open` };
  if (share > RIPPLE_BAD)
    return { kind: 'out', sentence: `${text}${against}: the reservoir holds too little` };
  return { kind: 'edge', sentence: `${text}${against}: usual at a reservoir, too much behind a regulator` };
}
