import { BenchModel } from '../analysis/index.ts';
import type { Circuit } from '../circuit/index.ts';
import { HalfsplitError } from '../errors.ts';
import type { TestPoint } from './path.ts';

/** A bias point within this of the computed one is as it should be (common practice), and never told closer than that. */
const SHARE = 0.15;
const LEAST_V = 0.15;

/** What is expected at a point with a net: the direct voltage of the circuit as marked, with room for its tolerances. */
export function expectedVoltage(
  circuit: Circuit,
): (point: TestPoint) => { readonly low: number; readonly high: number } | undefined {
  let model: BenchModel | null | undefined;
  return (point) => {
    if (point.net === undefined) return undefined;
    if (model === undefined) model = modelOf(circuit);
    if (!model) return undefined;
    const solved = model.tryOperatingPoint();
    const net = model.system.nets().find(([name]) => name === point.net);
    if (!solved.ok || !net) return undefined;
    const volt = solved.x[net[1]]!;
    const room = Math.max(LEAST_V, SHARE * Math.abs(volt));
    return { low: volt - room, high: volt + room };
  };
}

function modelOf(circuit: Circuit): BenchModel | null {
  try {
    return new BenchModel(circuit, 'marked');
  } catch (error) {
    if (error instanceof HalfsplitError) return null;
    throw error;
  }
}
