import { AdjointSlopes, AnalysisSession, type SpreadPart } from '../analysis/index.ts';
import { netsOf, type LayerCircuit, type LayerPart } from '../../circuit/circuit/index.ts';
import { VOLTMETER_OHM } from './probe.ts';

/** From every net to the ground, so that a part that is open leaves no net without a voltage; the voltmeter takes its place, ohm. */
const LEAK_OHM = 1e11;
/** What the voltmeter takes off a net counts as a divider up to this part of it. */
const LITTLE_LOAD = 0.02;

const leakOf = (net: string) => `#${net}`;

/**
 * A circuit with a leak at every net, which a voltmeter can take the place of.
 *
 * @param leaks by net, those of circuits with the same ground before: one that is there is taken again
 */
export function withLeaks(circuit: LayerCircuit, leaks = new Map<string, LayerPart>()): LayerCircuit {
  const parts = [...circuit.parts];
  for (const net of netsOf(circuit)) {
    if (net === circuit.ground) continue;
    const pins = { a: net, b: circuit.ground };
    const leak = leaks.get(net) ?? {
      ref: leakOf(net),
      kind: 'resistor',
      pins,
      value: LEAK_OHM,
      tolerance: 0,
    };
    leaks.set(net, leak);
    parts.push(leak);
  }
  return { ...circuit, parts };
}

/**
 * A voltmeter of 10 Mohm on a circuit that is switched on, at one net after the other: what it shows against the ground is
 * less than what is there where the net is of high resistance. Throws where there is no operating point, and what assembling the circuit
 * throws.
 */
export class Voltmeter {
  readonly session: AnalysisSession;
  readonly point: Float64Array;
  readonly slopes: AdjointSlopes;

  /**
   * @param session on a circuit from `withLeaks`
   * @param spread parts whose slopes are wanted as well
   */
  constructor(session: AnalysisSession, spread: readonly SpreadPart[] = []) {
    this.session = session;
    this.point = Float64Array.from(session.operatingPoint());
    this.slopes = new AdjointSlopes(session, spread);
  }

  /** The voltage of a net without the meter, V. */
  free(net: string): number {
    return this.point[this.session.system.node(net)]!;
  }

  /** What the meter shows at a net, V; solved again where it loads the net by more than a little. */
  shown(net: string): number {
    const free = this.free(net);
    const divided = free / (1 + this.slopes.directOhm(net) / VOLTMETER_OHM);
    if (Math.abs(divided - free) <= LITTLE_LOAD * Math.abs(free)) return divided;
    const values = new Map([[leakOf(net), VOLTMETER_OHM]]);
    return this.session.with({ values }).operatingPoint()[this.session.system.node(net)]!;
  }
}

/** What a voltmeter of 10 Mohm shows at every net of a circuit that is on, V, by net. Throws as `Voltmeter` does. */
export function shownVolts(circuit: LayerCircuit): ReadonlyMap<string, number> {
  const meter = new Voltmeter(new AnalysisSession(withLeaks(circuit)));
  return new Map(
    netsOf(circuit)
      .filter((net) => net !== circuit.ground)
      .map((net) => [net, meter.shown(net)]),
  );
}
