import type { PartKind } from '@halfsplit/contract';
import {
  AnalysisSession,
  differenceSlopes,
  magnitude,
  NoOperatingPoint,
  spreadParts,
  type SpreadPart,
} from '../analysis/index.ts';
import { netsOf, usualTolerance, type LayerCircuit, type LayerPart } from '../circuit/index.ts';
import { HalfsplitError } from '../errors.ts';
import { formatQuantity, type Unit } from '../quantity/index.ts';

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
const INPUT_OHM = 10e6;
/** From every net to the ground of the computation, so that what only capacitors hold has a voltage, ohm. */
const LEAK_OHM = 1e13;
const MOST_STEPS = 60;
const METER_REF = '#meter';
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
  'capsule',
  'clock',
  'box',
];

const UNITS: Readonly<Record<MeterMode, Unit>> = { ohm: 'ohm', cap: 'F', diode: 'V', dcv: 'V' };

export interface MeterAnswer {
  /** What the instrument shows; null when it shows overload. */
  readonly reading: number | null;
  readonly unit: Unit;
  readonly overload?: true;
  /** Where the reading may lie with every part within its tolerance; null ends are overload. */
  readonly expected: { readonly low: number | null; readonly high: number | null };
  /** One plain sentence. */
  readonly reason: string;
}

export interface MeterOptions {
  /** Input resistance of the voltmeter, ohm. */
  readonly inputOhm?: number;
}

/**
 * What an instrument shows between two nets, in circuit: the first net takes the red (positive) lead. Ohmmeter, diode
 * test and capacitance meter find the unit off, its sources taken out; the voltmeter finds it on. Throws
 * `circuit/unknown-net` and what assembling the circuit throws.
 */
export function meterReading(
  circuit: LayerCircuit,
  mode: MeterMode,
  red: string,
  black: string,
  options: MeterOptions = {},
): MeterAnswer {
  const known = new Set(netsOf(circuit));
  for (const net of [red, black])
    if (!known.has(net)) throw new HalfsplitError('circuit/unknown-net', { net, where: 'The meter' });
  const probe = new Probe(circuit, mode, red, black, options);
  const reading = probe.read();
  return {
    reading,
    unit: UNITS[mode],
    ...(reading === null ? { overload: true as const } : {}),
    expected: probe.expected(reading),
    reason: probe.reason(reading),
  };
}

/** One instrument held to two nets: it can be read again and again with parts at other values. */
export class Probe {
  private readonly circuit: LayerCircuit;
  private readonly mode: MeterMode;
  private readonly red: string;
  private readonly black: string;
  private readonly inputOhm: number;
  private readonly session: AnalysisSession;

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
    this.inputOhm = options.inputOhm ?? INPUT_OHM;
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
    const leaks = netsOf(circuit)
      .filter((net) => net !== ground)
      .map((net): LayerPart => ({
        ref: `#${net}`,
        kind: 'resistor',
        pins: { a: net, b: ground },
        value: LEAK_OHM,
      }));
    return { ...circuit, ground, parts: [...parts, ...meter, ...leaks] };
  }

  /** What it shows; null for overload. Throws `NoOperatingPoint` where the circuit has none. */
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

  /** Where the reading may lie with every part within its tolerance: every part at the end that its slope points to. */
  expected(reading: number | null): { low: number | null; high: number | null } {
    const parts = this.presentSpread();
    const slopes = differenceSlopes(this.session, parts, (s) => this.tryRead(s));
    const end = (sign: 1 | -1): number | null =>
      this.readWith(
        parts.map((p, i) => ({
          ref: p.ref,
          value: p.value * (1 + sign * Math.sign(slopes[i]!) * p.tolerance),
        })),
      );
    const [low, high] = [end(-1), end(1)];
    if (reading === null) return { low, high: null };
    return { low: low ?? reading, high };
  }

  private presentSpread(): SpreadPart[] {
    const present = new Set(this.session.circuit.parts.map((p) => p.ref));
    const parts = this.circuit.parts.filter((p) => present.has(p.ref));
    return spreadParts({ ...this.circuit, parts }, usualTolerance);
  }

  /** What it shows with some parts at other values; null for overload. */
  readWith(values: readonly { readonly ref: string; readonly value: number }[]): number | null {
    return this.tryRead(this.session.with({ values: new Map(values.map((v) => [v.ref, v.value])) }));
  }

  /** The other parts with their tolerances, and which of them the reading depends on. */
  spreadWithout(ref: string): SpreadPart[] {
    return this.presentSpread().filter((p) => p.ref !== ref);
  }

  /** Whether the reading rises or falls with each part: 1, -1 or 0. */
  signsOf(others: readonly SpreadPart[]): number[] {
    return differenceSlopes(this.session, others, (s) => this.tryRead(s)).map(Math.sign);
  }

  /** The other parts that move the reading most. */
  pathAround(ref: string): string[] {
    return this.through(ref);
  }

  private tryRead(session = this.session): number | null {
    try {
      return this.read(session);
    } catch (error) {
      if (error instanceof NoOperatingPoint) return null;
      throw error;
    }
  }

  /** Why it shows what it shows. */
  reason(reading: number | null): string {
    const shown = reading === null ? 'overload' : formatQuantity(reading, UNITS[this.mode], { digits: 3 });
    const own = this.circuit.parts.filter((p) => {
      const nets = Object.values(p.pins);
      return (
        nets.length === 2 && nets.includes(this.red) && nets.includes(this.black) && this.red !== this.black
      );
    });
    if (this.mode === 'dcv') return this.voltageReason(reading, shown);
    const kind = this.mode === 'cap' ? 'capacitor' : 'resistor';
    const part = own.find((p) => p.kind === kind);
    const value = part?.value;
    if (this.mode === 'diode') return this.junctionReason(own, shown);
    if (!part || typeof value !== 'number')
      return reading === null
        ? `No ${this.mode === 'cap' ? 'capacity' : 'path for direct current'} is there between ${this.red} and ${this.black}.`
        : `The parts between ${this.red} and ${this.black} together read ${shown}.`;
    const alone = formatQuantity(value, UNITS[this.mode], { digits: 3 });
    if (reading !== null && Math.abs(reading / value - 1) < NO_DIFFERENCE)
      return `${part.ref} is ${alone}, and nothing in parallel changes it.`;
    const others = this.through(part.ref);
    const path = others.length > 0 ? `the path through ${others.join(' and ')}` : 'what is in parallel';
    const reversed = this.mode === 'ohm' ? this.reversedDiffers(reading) : null;
    const junction =
      reversed === null ? '' : `; with the leads reversed it reads ${reversed}: a junction conducts`;
    return `${part.ref} alone is ${alone}; ${path} makes it read ${shown}${junction}.`;
  }

  /** The other parts that move the reading most. */
  private through(ref: string): string[] {
    const parts = this.presentSpread().filter((p) => p.ref !== ref);
    const slopes = differenceSlopes(this.session, parts, (s) => this.tryRead(s));
    return parts
      .map((p, i) => ({ ref: p.ref, slope: Math.abs(slopes[i]!) }))
      .filter((p, _, all) => p.slope > 0.05 * Math.max(...all.map((q) => q.slope)) && p.slope > 0)
      .sort((a, b) => b.slope - a.slope)
      .slice(0, 2)
      .map((p) => p.ref);
  }

  private reversedDiffers(reading: number | null): string | null {
    if (this.session.system.isLinear) return null;
    const other = new Probe(this.circuit, this.mode, this.black, this.red).tryRead();
    if (
      other === reading ||
      (other !== null && reading !== null && Math.abs(other / reading - 1) < NO_DIFFERENCE)
    )
      return null;
    return other === null ? 'overload' : formatQuantity(other, 'ohm', { digits: 3 });
  }

  private junctionReason(own: readonly LayerPart[], shown: string): string {
    const junction = own.find((p) => ['diode', 'zener', 'led'].includes(p.kind));
    if (!junction) return `At 1 mA there is ${shown} between ${this.red} and ${this.black}.`;
    const isForward = junction.pins.a === this.red;
    return `${junction.ref} is measured ${isForward ? 'forward' : 'backward'}: ${shown} at 1 mA.`;
  }

  private voltageReason(reading: number | null, shown: string): string {
    if (this.red === this.black || reading === null) return 'Both leads are on one net.';
    const { circuit } = this.session;
    const free = new AnalysisSession({ ...circuit, parts: circuit.parts.filter((p) => p.ref !== METER_REF) });
    const unloaded = volt(free, this.red) - volt(free, this.black);
    const input = formatQuantity(this.inputOhm, 'ohm');
    if (Math.abs(reading - unloaded) > NO_DIFFERENCE * Math.abs(unloaded))
      return `${formatQuantity(unloaded, 'V', { digits: 3 })} without the meter; its ${input} load it to ${shown}.`;
    return `${shown}; the meter's ${input} do not load it.`;
  }
}

const volt = (session: AnalysisSession, net: string): number => {
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

/** A difference that no bench instrument shows. */
const NO_DIFFERENCE = 0.005;
