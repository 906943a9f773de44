import { AnalysisSession, differenceSlopes, spreadParts, type SpreadPart } from '../analysis/index.ts';
import {
  netNamed,
  netsOf,
  usualTolerance,
  type LayerCircuit,
  type LayerPart,
} from '../../circuit/circuit/index.ts';
import { ZembleError } from '../../base/errors/index.ts';
import { formatQuantity, type Unit } from '../../base/quantity/index.ts';
import { METER_REF, Probe, volt, type MeterMode, type MeterOptions } from './probe.ts';

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

/**
 * What an instrument shows between two nets, in circuit: the first net takes the red (positive) lead. Ohmmeter, diode
 * test and capacitance meter find the unit off, its sources taken out; the voltmeter finds it on. Throws
 * `circuit/unknown-net` and what assembling the circuit throws.
 */
export function meterReading(
  circuit: LayerCircuit,
  mode: MeterMode,
  redNet: string,
  blackNet: string,
  options: MeterOptions = {},
): MeterAnswer {
  const known = new Set(netsOf(circuit));
  const [red, black] = [netNamed(circuit, redNet), netNamed(circuit, blackNet)];
  for (const net of [red, black])
    if (!known.has(net)) throw new ZembleError('circuit/unknown-net', { net, where: 'The meter' });
  const probe = new Probe(circuit, mode, red, black, options);
  const reading = probe.read();
  return {
    reading,
    unit: UNITS[mode],
    ...(reading === null ? { overload: true as const } : {}),
    expected: expectedOf(probe, reading),
    reason: reasonOf(probe, reading),
  };
}

/** Where the reading may lie with every part within its tolerance: every part at the end that its slope points to. */
function expectedOf(probe: Probe, reading: number | null): MeterAnswer['expected'] {
  const parts = presentSpread(probe);
  const slopes = slopesOf(probe, parts);
  const end = (sign: 1 | -1): number | null =>
    probe.readWith(
      new Map(parts.map((p, i) => [p.ref, p.value * (1 + sign * Math.sign(slopes[i]!) * p.tolerance)])),
    );
  const [low, high] = [end(-1), end(1)];
  if (reading === null) return { low, high: null };
  return { low: low ?? reading, high };
}

const slopesOf = (probe: Probe, parts: readonly SpreadPart[]) =>
  differenceSlopes(probe.session, parts, (session) => probe.read(session));

function presentSpread({ session, circuit }: Probe): SpreadPart[] {
  const present = new Set(session.circuit.parts.map((p) => p.ref));
  const parts = circuit.parts.filter((p) => present.has(p.ref));
  return spreadParts({ ...circuit, parts }, usualTolerance);
}

/** The other parts that move the reading most. */
export function through(probe: Probe, ref: string): string[] {
  const parts = presentSpread(probe).filter((p) => p.ref !== ref);
  const slopes = slopesOf(probe, parts);
  return parts
    .map((p, i) => ({ ref: p.ref, slope: Math.abs(slopes[i]!) }))
    .filter((p, _, all) => p.slope > 0.05 * Math.max(...all.map((q) => q.slope)) && p.slope > 0)
    .sort((a, b) => b.slope - a.slope)
    .slice(0, 2)
    .map((p) => p.ref);
}

/** Why it shows what it shows. */
function reasonOf(probe: Probe, reading: number | null): string {
  const { circuit, mode, red, black } = probe;
  const shown = reading === null ? 'overload' : formatQuantity(reading, UNITS[mode], { digits: 3 });
  const own = circuit.parts.filter((p) => {
    const nets = Object.values(p.pins);
    return nets.length === 2 && nets.includes(red) && nets.includes(black) && red !== black;
  });
  if (mode === 'dcv') return voltageReason(probe, reading, shown);
  const kind = mode === 'cap' ? 'capacitor' : 'resistor';
  const part = own.find((p) => p.kind === kind);
  const value = part?.value;
  if (mode === 'diode') return junctionReason(probe, own, shown);
  if (!part || typeof value !== 'number')
    return reading === null
      ? `No ${mode === 'cap' ? 'capacity' : 'path for direct current'} is there between ${red} and ${black}.`
      : `The parts between ${red} and ${black} together read ${shown}.`;
  const alone = formatQuantity(value, UNITS[mode], { digits: 3 });
  if (reading !== null && Math.abs(reading / value - 1) < NO_DIFFERENCE)
    return `${part.ref} is ${alone}, and nothing in parallel changes it.`;
  const others = through(probe, part.ref);
  const path = others.length > 0 ? `the path through ${others.join(' and ')}` : 'what is in parallel';
  const reversed = mode === 'ohm' ? reversedText(probe, reading) : null;
  const junction =
    reversed === null ? '' : `; with the leads reversed it reads ${reversed}: a junction conducts`;
  return `${part.ref} alone is ${alone}; ${path} makes it read ${shown}${junction}.`;
}

/** What it reads with the leads reversed; null where that is the same. */
function reversedText({ circuit, mode, red, black, session }: Probe, reading: number | null): string | null {
  if (session.system.isLinear) return null;
  const other = new Probe(circuit, mode, black, red).read();
  if (other === reading) return null;
  if (other !== null && reading !== null && Math.abs(other / reading - 1) < NO_DIFFERENCE) return null;
  return other === null ? 'overload' : formatQuantity(other, 'ohm', { digits: 3 });
}

function junctionReason({ red, black }: Probe, own: readonly LayerPart[], shown: string): string {
  const junction = own.find((p) => ['diode', 'zener', 'led'].includes(p.kind));
  if (!junction) return `At 1 mA there is ${shown} between ${red} and ${black}.`;
  const isForward = junction.pins.a === red;
  return `${junction.ref} is measured ${isForward ? 'forward' : 'backward'}: ${shown} at 1 mA.`;
}

function voltageReason(
  { session, red, black, inputOhm }: Probe,
  reading: number | null,
  shown: string,
): string {
  if (red === black || reading === null) return 'Both leads are on one net.';
  const { circuit } = session;
  const free = new AnalysisSession({ ...circuit, parts: circuit.parts.filter((p) => p.ref !== METER_REF) });
  const unloaded = volt(free, red) - volt(free, black);
  const input = formatQuantity(inputOhm, 'ohm');
  if (Math.abs(reading - unloaded) > NO_DIFFERENCE * Math.abs(unloaded))
    return `${formatQuantity(unloaded, 'V', { digits: 3 })} without the meter; its ${input} load it to ${shown}.`;
  return `${shown}; the meter's ${input} do not load it.`;
}

/** A difference that no bench instrument shows. */
const NO_DIFFERENCE = 0.005;
