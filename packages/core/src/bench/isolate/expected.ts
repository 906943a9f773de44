import { AnalysisSession, magnitude } from '../../analysis/analysis/index.ts';
import { resolveLayer } from '../../circuit/changes/index.ts';
import { type Circuit, type LayerCircuit } from '../../circuit/circuit/index.ts';
import { USUAL_FREQUENCY_HZ } from '../../circuit/devices/index.ts';
import { ZembleError } from '../../base/errors/index.ts';
import { Voltmeter, withLeaks } from '../../analysis/meter/index.ts';
import type { TestPoint } from './path.ts';

/** A bias point within this of the computed one is as it should be (common practice), and never told closer than that. */
const SHARE = 0.15;
const LEAST_V = 0.15;
/** A level within 3 dB of the computed one is as it should be; below a tenth of a millivolt nothing is told (common practice). */
const LEVEL_FACTOR = Math.SQRT2;
const LEAST_LEVEL_V = 1e-4;
/** Ripple up to this part of the direct voltage is usual at a reservoir (common practice). */
const RIPPLE_SHARE = 0.1;

export interface ExpectedRange {
  readonly low: number;
  readonly high: number;
}

/**
 * What is expected at a point with a net, of the circuit as marked, with room for its tolerances: a direct voltage (unit
 * `V`) as a meter of 10 Mohm shows it, the level of the signal sources' tone (`Vrms`), or the ripple (`Vpp`). Undefined where it cannot be told.
 */
export function expectedVoltage(
  circuit: Circuit,
): (point: TestPoint, unit: string) => ExpectedRange | undefined {
  let session: AnalysisSession | null | undefined;
  let meter: Voltmeter | undefined;
  return ({ net }, unit) => {
    if (net === undefined) return undefined;
    if (session === undefined) session = sessionOf(circuit);
    if (!session) return undefined;
    const solved = session.tryOperatingPoint();
    const node = session.system.nets().find(([name]) => name === net)?.[1];
    if (!solved.ok || node === undefined || net === circuit.ground) return undefined;
    const volt = solved.x[node]!;
    switch (unit) {
      case 'V': {
        // The meter loads the net that it stands at: what it shows is what is expected.
        meter ??= new Voltmeter(new AnalysisSession(withLeaks(session.circuit)));
        const shown = meter.shown(net);
        const room = Math.max(LEAST_V, SHARE * Math.abs(shown));
        return { low: shown - room, high: shown + room };
      }
      case 'Vrms': {
        const toneHz = toneHzOf(circuit);
        const level = toneHz === null ? 0 : levelAt(session, node, toneHz) / Math.SQRT2;
        return level < LEAST_LEVEL_V ? undefined : { low: level / LEVEL_FACTOR, high: level * LEVEL_FACTOR };
      }
      case 'Vpp':
        return { low: 0, high: RIPPLE_SHARE * Math.abs(volt) };
      default:
        return undefined;
    }
  };
}

/** Frequency of the tone that levels are measured with: the first signal source's, Hz; null without one. */
export function toneHzOf(circuit: {
  readonly parts: readonly (Circuit | LayerCircuit)['parts'][number][];
}): number | null {
  const source = circuit.parts.find((p) => p.kind === 'signal');
  return source ? (source.frequency ?? USUAL_FREQUENCY_HZ) : null;
}

/** Level at a node with every signal source on at a frequency, V peak. */
export function levelAt(session: AnalysisSession, node: number, frequencyHz: number): number {
  const signal = session.smallSignal.at(frequencyHz);
  let [re, im] = [0, 0];
  for (const p of session.circuit.parts) {
    if (p.kind !== 'signal' || typeof p.value !== 'number') continue;
    const v = signal.drive(p.ref).voltage(node);
    [re, im] = [re + p.value * v.re, im + p.value * v.im];
  }
  return magnitude({ re, im });
}

function sessionOf(circuit: Circuit): AnalysisSession | null {
  try {
    return new AnalysisSession(resolveLayer(circuit, 'marked'));
  } catch (error) {
    if (error instanceof ZembleError) return null;
    throw error;
  }
}

/** Direct voltages of a circuit as it was found, V by net; empty where they cannot be computed. */
export function restingVolts(circuit: Circuit): ReadonlyMap<string, number> {
  try {
    const session = new AnalysisSession(resolveLayer(circuit, 'found'));
    const solved = session.tryOperatingPoint();
    return solved.ok ? new Map(session.system.nets().map(([net, i]) => [net, solved.x[i]!])) : new Map();
  } catch (error) {
    if (error instanceof ZembleError) return new Map();
    throw error;
  }
}
