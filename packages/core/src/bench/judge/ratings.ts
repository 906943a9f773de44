import { AnalysisSession, NoOperatingPoint } from '../../analysis/analysis/index.ts';
import { isPolarised, type LayerCircuit, type LayerPart } from '../../circuit/circuit/index.ts';
import { opampParameters } from '../../circuit/devices/index.ts';
import { ZembleError, problem, type Problem } from '../../base/errors/index.ts';
import { formatQuantity } from '../../base/quantity/index.ts';
import { clockFault, clockOhm } from '../../analysis/readouts/index.ts';
import { swingOf } from './stress.ts';

/** An electrolytic bears about this much the wrong way round, V (common practice). */
const REVERSE_V = 0.5;
/** What a small opamp's output gives, A (usual data sheets). */
const SMALL_OPAMP_A = 0.02;

/**
 * What a circuit asks of its parts beyond their ratings, at rest and with its signals at their levels: capacitors against
 * their rated voltage and polarity, parts against their rated power, opamps against the current of their output and the least
 * supply they work on, clocks against the resistors they bear. Empty where the circuit cannot be computed, which others say.
 */
export function checkRatings(circuit: LayerCircuit): Problem[] {
  try {
    const session = new AnalysisSession(circuit);
    const x = session.operatingPoint();
    return circuit.parts.flatMap((part) => checkPart(session, x, part));
  } catch (error) {
    if (error instanceof ZembleError || error instanceof NoOperatingPoint) return [];
    throw error;
  }
}

function checkPart(session: AnalysisSession, x: Float64Array, part: LayerPart): Problem[] {
  const { ref } = part;
  const { system, circuit } = session;
  const say = (detail: string) => problem('circuit/over-rating', { ref, detail });
  if (part.kind === 'clock') {
    const { rset, gnd } = part.pins;
    const fault =
      rset === undefined || gnd === undefined ? null : clockFault(part, clockOhm(session, rset, gnd));
    return fault === null ? [] : [say(`it ${fault}`)];
  }
  if (part.kind === 'box') return [];
  const volts = (value: number) => formatQuantity(value, 'V', { digits: 3 });
  const found: Problem[] = [];
  const at = (net: string | undefined) => (net === undefined ? 0 : x[system.node(net)]!);
  if (part.kind === 'capacitor') {
    const direct = at(part.pins.a) - at(part.pins.b);
    const [a, b] = [part.pins.a ?? circuit.ground, part.pins.b ?? circuit.ground];
    const most = Math.abs(direct) + swingOf(session, (s) => s.voltage(system.node(a), system.node(b))).peak;
    if (part.voltage !== undefined && most > part.voltage)
      found.push(say(`up to ${volts(most)} stand across it, and it is rated ${volts(part.voltage)}`));
    if (isPolarised(part) && direct < -REVERSE_V)
      found.push(say(`it is polarised, and its plus stands ${volts(-direct)} below its minus`));
  }
  const report = system.device(ref).report(x);
  if (part.power !== undefined && Math.abs(report.power) > part.power)
    found.push(
      say(
        `${formatQuantity(report.power, 'W', { digits: 3 })} of heat at rest, and it is rated ${formatQuantity(part.power, 'W')}`,
      ),
    );
  if (part.kind === 'opamp') {
    const { IMAX, minSupply } = opampParameters(part, circuit.models);
    if (report.region === 'starved')
      found.push(
        say(
          `${volts(at(part.pins.vplus) - at(part.pins.vminus))} between its supply pins, and it needs at least ${volts(minSupply)}`,
        ),
      );
    const most = Number.isFinite(IMAX) ? IMAX : SMALL_OPAMP_A;
    const current = Math.abs(report.current) + swingOf(session, (s) => s.current(ref)).peak;
    const whose = Number.isFinite(IMAX) ? 'it gives' : 'how much it gives is not known; a small opamp gives';
    if (current > most)
      found.push(
        say(
          `${formatQuantity(current, 'A', { digits: 2 })} from its output; ${whose} ${formatQuantity(most, 'A')}`,
        ),
      );
  }
  if (part.kind === 'regulator' && report.region === 'limiting')
    found.push(say('it is driven into its current limit'));
  return found;
}
