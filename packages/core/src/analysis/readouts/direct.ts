import type { ReadoutOf } from '@zemble/contract';
import type { DeviceReport } from '../../circuit/devices/index.ts';
import type { AnalysisSession } from '../analysis/index.ts';
import { needed, undefinedBecause, type ReadoutType } from './readout-type.ts';

/** Direct voltage at a net, V. */
export const voltage: ReadoutType<'voltage'> = {
  describe: (r) => `DC at ${r.net}`,
  compute(session, r) {
    const x = session.operatingPoint();
    return x[session.system.node(needed(r, 'net', r.net), `Readout "${r.name}"`)]!;
  },
  slopes: (adjoint, _session, r) => adjoint.voltage(needed(r, 'net', r.net)),
};

type OfPart = ReadoutOf<'current' | 'dissipation' | 'junctionTemperature'>;

function reportOf(session: AnalysisSession, r: OfPart): DeviceReport {
  const x = session.operatingPoint();
  return session.system.device(needed(r, 'part', r.part), `Readout "${r.name}"`).report(x);
}

/** Direct current into a part's first pin, A. */
export const current: ReadoutType<'current'> = {
  describe: (r) => `current in ${r.part}`,
  compute: (session, r) => reportOf(session, r).current,
};

/** Heat in a part at rest, W. */
export const dissipation: ReadoutType<'dissipation'> = {
  describe: (r) => `heat in ${r.part}`,
  compute: (session, r) => reportOf(session, r).power,
};

const USUAL_AMBIENT_C = 25;

/**
 * Temperature of a junction at rest, degrees Celsius: T = Ta + P theta, theta from junction to ambient, or the sum of
 * junction to case, case to sink and sink to ambient.
 */
export const junctionTemperature: ReadoutType<'junctionTemperature'> = {
  describe: (r) => `temperature of ${r.part}`,
  compute(session, r) {
    const { thetaJA, thetaJC, thetaCS = 0, thetaSA, ambientC = USUAL_AMBIENT_C } = r;
    if (thetaJA !== undefined && (thetaJC !== undefined || thetaSA !== undefined))
      throw undefinedBecause(r, 'give "thetaJA" alone, or "thetaJC", "thetaCS" and "thetaSA" without it');
    const theta = thetaJA ?? needed(r, 'thetaJC', thetaJC) + thetaCS + needed(r, 'thetaSA', thetaSA);
    return ambientC + reportOf(session, r).power * theta;
  },
};

/** Power that all supplies give at rest, W. */
export const supplyPower: ReadoutType<'supplyPower'> = {
  describe: () => 'from all supplies',
  compute(session, r) {
    const x = session.operatingPoint();
    const supplies = session.circuit.parts.filter((p) => p.kind === 'supply');
    if (supplies.length === 0) throw undefinedBecause(r, 'the circuit has no supply');
    return supplies.reduce((sum, p) => sum + session.system.device(p.ref).report(x).power, 0);
  },
};
