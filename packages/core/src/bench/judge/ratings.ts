import { AnalysisSession } from '../../analysis/analysis/index.ts';
import { isPolarised, type LayerCircuit, type LayerPart } from '../../circuit/circuit/index.ts';
import { opampParameters, USUAL_PULL_IN_V, type DeviceReport } from '../../circuit/devices/index.ts';
import { ZembleError, problem, type Problem } from '../../base/errors/index.ts';
import { formatQuantity } from '../../base/quantity/index.ts';
import { clockFault, clockOhm } from '../../analysis/readouts/index.ts';
import { swingOf } from './stress.ts';

/** An electrolytic bears about this much the wrong way round, V (common practice). */
const REVERSE_V = 0.5;
/** What a small opamp's output gives, A (usual data sheets). */
const SMALL_OPAMP_A = 0.02;

/** Direct voltage across a loudspeaker or headphone from which its coil is pushed aside and heated, V (common practice). */
const LOAD_DIRECT_V = 0.1;
/** Direct current that a core without a gap is said to bear, A (common practice: a milliampere or so). */
const CORE_DIRECT_A = 2e-3;
/** An input beyond its rail by a junction's drop conducts into it, V (data sheets: 0.3 V). */
const BEYOND_RAIL_V = 0.3;
/** A coil with less than this part of what it pulls in at is not meant to be on. */
const MEANT_ON = 0.3;
/** What small resistors bear of which nothing is said, W (common practice). */
const SMALL_RESISTOR_W = 0.5;
/** The most between the supply pins of chips of which nothing else is known, V (data sheets of common types). */
const MOST_SUPPLY_V = { opamp: 36, timer555: 16, regulator: 35 } as const;

/** What is amiss with a part at rest beside its ratings, in words. */
function atRest(part: LayerPart, report: DeviceReport, at: (net: string | undefined) => number): string[] {
  const volts = (value: number) => formatQuantity(value, 'V', { digits: 3 });
  const found: string[] = [];
  const { pins } = part;
  switch (part.kind) {
    case 'speaker':
    case 'headphone': {
      const direct = at(pins.a) - at(pins.b);
      if (Math.abs(direct) > LOAD_DIRECT_V)
        found.push(
          `${volts(direct)} of direct voltage stand across it, which drive ${formatQuantity(Math.abs(report.current), 'A')} through its coil`,
        );
      break;
    }
    case 'transformer':
      if (Math.abs(report.current) > CORE_DIRECT_A)
        found.push(
          `${formatQuantity(Math.abs(report.current), 'A')} of direct current flow in its primary: its core must have a gap for that`,
        );
      break;
    case 'relay': {
      const across = Math.abs(at(pins.coilA) - at(pins.coilB));
      const needs = part.pullInV ?? USUAL_PULL_IN_V;
      if (report.region === 'released' && across > MEANT_ON * needs)
        found.push(`its coil has ${volts(across)} and pulls in at ${volts(needs)}: it stays released`);
      break;
    }
    case 'opamp': {
      const [top, bottom] = [at(pins.vplus), at(pins.vminus)];
      if (top - bottom > MOST_SUPPLY_V.opamp)
        found.push(
          `${volts(top - bottom)} between its supply pins, and most types bear ${MOST_SUPPLY_V.opamp} V`,
        );
      for (const pin of ['plus', 'minus'] as const) {
        const volt = at(pins[pin]);
        if (pins.vplus !== undefined && (volt > top + BEYOND_RAIL_V || volt < bottom - BEYOND_RAIL_V))
          found.push(
            `its ${pin} input stands at ${volts(volt)}, beyond its supply of ${volts(bottom)} to ${volts(top)}`,
          );
      }
      break;
    }
    case 'timer555': {
      const [top, bottom] = [at(pins.vcc), at(pins.gnd)];
      if (top - bottom > MOST_SUPPLY_V.timer555)
        found.push(
          `${volts(top - bottom)} between its supply pins, and it bears ${MOST_SUPPLY_V.timer555} V`,
        );
      for (const pin of ['trig', 'thr', 'reset', 'ctrl'] as const) {
        const volt = at(pins[pin]);
        if (pins[pin] !== undefined && (volt > top + BEYOND_RAIL_V || volt < bottom - BEYOND_RAIL_V))
          found.push(
            `its ${pin} stands at ${volts(volt)}, beyond its supply of ${volts(bottom)} to ${volts(top)}`,
          );
      }
      break;
    }
    case 'regulator': {
      const most = Math.abs(at(pins.in) - at(pins.gnd));
      if (most > MOST_SUPPLY_V.regulator)
        found.push(`${volts(most)} at its input, and most types bear ${MOST_SUPPLY_V.regulator} V`);
      if (report.region === 'dropping out' || report.region === 'off')
        found.push(`${volts(most)} at its input are too little: its output falls with it`);
      break;
    }
    case 'resistor':
      if (part.power === undefined && report.power > SMALL_RESISTOR_W)
        found.push(
          `${formatQuantity(report.power, 'W', { digits: 3 })} of heat at rest, and nothing is said of its rating: small ones bear a quarter to half a watt`,
        );
      break;
  }
  return found;
}

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
    if (error instanceof ZembleError) return [];
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
  found.push(...atRest(part, report, at).map(say));
  if (part.kind === 'regulator' && report.region === 'limiting')
    found.push(say('it is driven into its current limit'));
  return found;
}
