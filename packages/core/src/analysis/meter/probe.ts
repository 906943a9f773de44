import type { PartKind } from '@zemble/contract';
import { AnalysisSession, magnitude } from '../analysis/index.ts';
import { ohmicIslands, type LayerCircuit, type LayerPart } from '../../circuit/circuit/index.ts';

export const METER_MODES = ['ohm', 'cap', 'diode', 'dcv'] as const;
export type MeterMode = (typeof METER_MODES)[number];

/** Full scale of the ohmmeter, V, and its test currents from the lowest range up, A. */
const OHM_FULL_SCALE_V = 0.4;
const OHM_CURRENTS_A = [1e-3, 1e-4, 1e-5, 1e-6, 1e-7, 1e-8];
/** The most that a current source of the meter gives, V. */
const COMPLIANCE_V = 2.5;
const DIODE_CURRENT_A = 1e-3;
/** Test frequency of the capacitance meter up to its limit, and above, Hz and F. */
const CAP_FREQUENCY_HZ = 1000;
const CAP_LIMIT_F = 1e-6;
const CAP_SLOW_HZ = 100;
/** A capacitance below this is an open, F. */
const LEAST_CAP_F = 1e-12;
/** Input resistance of a usual voltmeter, ohm. */
export const VOLTMETER_OHM = 10e6;
/**
 * From one net of each group that no resistance joins to the ground of the computation, so that it has a voltage, ohm:
 * far above what a meter reads, and near enough to a closed contact for elimination to tell the two from each other.
 */
const LEAK_OHM = 1e11;
const MOST_STEPS = 60;
export const METER_REF = '#meter';
/** The source of the ohmmeter is computed as an EMF behind this, turned until its current is the range's, ohm. */
const METER_OHM = 1000;

/** Parts that do nothing while the unit is off: sources, and devices that need their supply. */
const ONLY_POWERED: readonly PartKind[] = [
  'supply',
  'signal',
  'opamp',
  'timer555',
  'regulator',
  'triode',
  'pentode',
  'clock',
  'box',
];

export interface MeterOptions {
  /** Input resistance of the voltmeter, ohm. */
  readonly inputOhm?: number;
}

/** One instrument held to two nets: it can be read again and again with parts at other values. */
export class Probe {
  readonly circuit: LayerCircuit;
  readonly mode: MeterMode;
  readonly red: string;
  readonly black: string;
  readonly inputOhm: number;
  /** The circuit with the instrument at it. */
  readonly session: AnalysisSession;

  constructor(
    circuit: LayerCircuit,
    mode: MeterMode,
    red: string,
    black: string,
    options: MeterOptions = {},
  ) {
    this.circuit = circuit;
    this.mode = mode;
    this.red = red;
    this.black = black;
    this.inputOhm = options.inputOhm ?? VOLTMETER_OHM;
    this.session = new AnalysisSession(this.withMeter());
  }

  private withMeter(): LayerCircuit {
    const { circuit, mode, red, black } = this;
    const parts =
      mode === 'dcv' ? circuit.parts : circuit.parts.filter((p) => !ONLY_POWERED.includes(p.kind));
    const meter: LayerPart[] =
      mode === 'ohm' || mode === 'diode'
        ? [
            {
              ref: METER_REF,
              kind: 'supply',
              pins: { plus: red, minus: black },
              value: 0.1,
              resistance: METER_OHM,
            },
          ]
        : mode === 'dcv' && red !== black
          ? [{ ref: METER_REF, kind: 'resistor', pins: { a: red, b: black }, value: this.inputOhm }]
          : [];
    // With the unit off the black lead is the ground: what hangs on it is well defined, all else stands at zero.
    const ground = mode === 'dcv' ? circuit.ground : black;
    const held = { ...circuit, ground, parts: [...parts, ...meter] };
    const leaks = ohmicIslands(held).map((net): LayerPart => ({
      ref: `#${net}`,
      kind: 'resistor',
      pins: { a: net, b: ground },
      value: LEAK_OHM,
    }));
    return { ...held, parts: [...held.parts, ...leaks] };
  }

  /**
   * What it shows; null for overload, of a capacitance meter for too little to read. Throws a ZembleError where the
   * circuit has none.
   */
  read(session = this.session): number | null {
    switch (this.mode) {
      case 'dcv':
        return volt(session, this.red) - volt(session, this.black);
      case 'cap':
        return this.capacitance(session);
      case 'diode':
        return this.red === this.black ? 0 : this.voltageAt(session, DIODE_CURRENT_A, COMPLIANCE_V);
      case 'ohm':
        return this.red === this.black ? 0 : this.resistance(session);
    }
  }

  /** Voltage at which the circuit takes a current; null when that is more than `mostV`. */
  private voltageAt(session: AnalysisSession, current: number, mostV: number): number | null {
    let latest = session;
    /** Current that flows from the meter with an EMF behind its resistance, A. */
    const currentAt = (emf: number): number => {
      latest = latest.with({ values: new Map([[METER_REF, emf]]) });
      return -latest.system.device(METER_REF).report(latest.operatingPoint()).current;
    };
    const mostEmf = mostV + current * METER_OHM;
    const most = currentAt(mostEmf);
    if (!(most >= current)) return null;
    if (session.system.isLinear) return (mostEmf / most - METER_OHM) * current;
    const emf = rootOf((v) => currentAt(v) - current, 0, -current, mostEmf, most - current);
    return emf - current * METER_OHM;
  }

  private resistance(session: AnalysisSession): number | null {
    for (const current of OHM_CURRENTS_A) {
      const shown = this.voltageAt(session, current, OHM_FULL_SCALE_V);
      if (shown !== null) return Math.max(0, shown) / current;
    }
    return null;
  }

  private capacitance(session: AnalysisSession): number | null {
    if (this.red === this.black) return null;
    const at = (frequencyHz: number) => {
      const signal = session.smallSignal.at(frequencyHz);
      const [red, black] = [session.system.node(this.red), session.system.node(this.black)];
      const z = signal.inject(black, red).voltage(red, black);
      const squared = magnitude(z) ** 2;
      return -z.im / squared / (2 * Math.PI * frequencyHz);
    };
    const quick = at(CAP_FREQUENCY_HZ);
    const farad = quick <= CAP_LIMIT_F ? quick : at(CAP_SLOW_HZ);
    return farad > LEAST_CAP_F ? farad : null;
  }

  /**
   * Whether an ohmmeter would show less than a resistance, null for overload, with some parts at other values: one look at
   * the current of its range, and one at the next range up.
   */
  showsBelow(ohm: number | null, values: ReadonlyMap<string, number>): boolean {
    if (this.red === this.black) return true;
    const session = this.session.with({ values });
    const range =
      ohm === null ? -1 : OHM_CURRENTS_A.findIndex((current) => ohm * current <= OHM_FULL_SCALE_V);
    if (range < 0) return this.takes(session, OHM_CURRENTS_A.at(-1)!, OHM_FULL_SCALE_V);
    // What a larger current can be driven through is read on that range, as less.
    if (range > 0 && this.takes(session, OHM_CURRENTS_A[range - 1]!, OHM_FULL_SCALE_V)) return true;
    const current = OHM_CURRENTS_A[range]!;
    return this.takes(session, current, ohm! * current);
  }

  /** Whether the circuit takes a current at a voltage or below. */
  private takes(session: AnalysisSession, current: number, volt: number): boolean {
    const driven = session.with({ values: new Map([[METER_REF, volt + current * METER_OHM]]) });
    return -driven.system.device(METER_REF).report(driven.operatingPoint()).current >= current;
  }

  /** What it shows with some parts at other values. */
  readWith(values: ReadonlyMap<string, number>): number | null {
    return this.read(this.session.with({ values }));
  }
}

/** Voltage of a net, V. Throws `circuit/unknown-net`. */
export const volt = (session: AnalysisSession, net: string): number => {
  const x = session.operatingPoint();
  return x[session.system.node(net, 'The meter')]!;
};

/**
 * Root of a rising function between two points, by false position with the Illinois rule (Dowell and Jarratt 1971): the
 * end that stays is weighed half.
 */
function rootOf(of: (x: number) => number, low: number, atLow: number, high: number, atHigh: number): number {
  let [a, fa, b, fb] = [low, atLow, high, atHigh];
  for (let i = 0; i < MOST_STEPS && b - a > RESOLUTION * b; i += 1) {
    // A span that false position hardly narrows is halved now and then: exponentials lean on one end.
    const x = i % 4 === 3 ? (a + b) / 2 : b - (fb * (b - a)) / (fb - fa);
    const fx = of(x);
    if (Math.abs(fx) <= RESOLUTION * Math.abs(atLow)) return x;
    if (fx < 0) {
      [a, fa] = [x, fx];
      fb /= 2;
    } else {
      [b, fb] = [x, fx];
      fa /= 2;
    }
  }
  return (a + b) / 2;
}
const RESOLUTION = 1e-9;
