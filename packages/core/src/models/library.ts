import type { PartKind } from '@halfsplit/contract';
import type { Part } from '../circuit/index.ts';

/** Parameters of a generic type number that many makers sell. */
export interface Model {
  readonly name: string;
  readonly kind: PartKind;
  readonly params: Readonly<Record<string, number | string>>;
  /** Where the numbers come from. */
  readonly origin: string;
}

const TYPICAL = 'typical published values, from memory';

export const MODELS: readonly Model[] = [
  { name: '2N3904', kind: 'bjt', origin: TYPICAL, params: { polarity: 'npn', IS: 6.7e-15, BF: 300, BR: 1, VAF: 74, IKF: 0.066, ISE: 6.7e-15, NE: 1.26, RB: 10, RC: 1, CJE: 4.5e-12, CJC: 3.6e-12, TF: 3e-10 } },
  { name: '2N3906', kind: 'bjt', origin: TYPICAL, params: { polarity: 'pnp', IS: 1.4e-15, BF: 180, BR: 5, VAF: 19, IKF: 0.08, RB: 10, RC: 2.5, CJE: 8e-12, CJC: 9.7e-12, TF: 1.8e-10 } },
  { name: 'BC547B', kind: 'bjt', origin: TYPICAL, params: { polarity: 'npn', IS: 1.8e-14, BF: 300, BR: 4, VAF: 80, IKF: 0.1, ISE: 5e-14, NE: 1.46, RB: 100, RC: 0.25, RE: 0.5, CJE: 1.3e-11, CJC: 4e-12, TF: 6.4e-10 } },
  { name: 'BC549C', kind: 'bjt', origin: TYPICAL, params: { polarity: 'npn', IS: 2.4e-14, BF: 520, BR: 5, VAF: 60, IKF: 0.12, ISE: 3.5e-15, NE: 1.3, RB: 100, RC: 0.25, RE: 0.5, CJE: 1.3e-11, CJC: 4e-12, TF: 5e-10 } },
  { name: 'BC557B', kind: 'bjt', origin: TYPICAL, params: { polarity: 'pnp', IS: 3.8e-14, BF: 250, BR: 6, VAF: 40, IKF: 0.08, RB: 100, RC: 0.6, RE: 0.5, CJE: 1.6e-11, CJC: 1e-11, TF: 6.6e-10 } },
  { name: '1N4148', kind: 'diode', origin: TYPICAL, params: { IS: 2.52e-9, N: 1.752, RS: 0.568, BV: 100, IBV: 1e-4, CJO: 4e-12, VJ: 0.6, M: 0.4, TT: 2e-8 } },
  { name: '1N4001', kind: 'diode', origin: TYPICAL, params: { IS: 1.4e-9, N: 1.7, RS: 0.03, BV: 50, IBV: 1e-5, CJO: 2.6e-11, VJ: 0.7, M: 0.35, TT: 3e-6 } },
  { name: '1N4007', kind: 'diode', origin: TYPICAL, params: { IS: 7.03e-9, N: 1.809, RS: 0.034, BV: 1000, IBV: 1e-5, CJO: 1e-11, VJ: 0.7, M: 0.35, TT: 4e-6 } },
  { name: '1N34A', kind: 'diode', origin: TYPICAL, params: { IS: 2e-7, N: 1.3, RS: 7, BV: 75, IBV: 2e-5, CJO: 1e-12, VJ: 0.3, M: 0.3 } },
  { name: '1N5819', kind: 'diode', origin: TYPICAL, params: { IS: 3.2e-6, N: 1.05, RS: 0.05, BV: 40, IBV: 1e-3, CJO: 1.1e-10, VJ: 0.35, M: 0.4 } },
  { name: 'red', kind: 'led', origin: TYPICAL, params: { IS: 1e-18, N: 1.95, RS: 2 } },
  { name: 'green', kind: 'led', origin: TYPICAL, params: { IS: 1e-20, N: 1.95, RS: 3 } },
  { name: 'blue', kind: 'led', origin: TYPICAL, params: { IS: 1e-26, N: 2.2, RS: 5 } },
  { name: 'TL072', kind: 'opamp', origin: TYPICAL, params: { AOL: 2e5, GBW: 3e6, RIN: 1e12, ROUT: 100, IB: 6.5e-11, VOS: 0, EN: 1.8e-8, ENF: 100, IN: 1e-14, SR: 1.3e7, headroomHigh: 1.5, headroomLow: 1.5 } },
  { name: 'NE5532', kind: 'opamp', origin: TYPICAL, params: { AOL: 1e5, GBW: 1e7, RIN: 3e5, ROUT: 30, IB: 2e-7, VOS: 0, EN: 5e-9, ENF: 100, IN: 7e-13, SR: 9e6, headroomHigh: 1.5, headroomLow: 1.5 } },
  { name: 'LM358', kind: 'opamp', origin: TYPICAL, params: { AOL: 1e5, GBW: 1e6, RIN: 1e7, ROUT: 300, IB: 4.5e-8, VOS: 0, EN: 4e-8, ENF: 20, IN: 1e-13, SR: 5e5, headroomHigh: 1.5, headroomLow: 0.02 } },
]; // prettier-ignore

/** A model of the library by its name, in any case. */
export function modelNamed(name: string, kind?: PartKind): Model | undefined {
  const wanted = name.trim().toLowerCase();
  return MODELS.find((m) => m.name.toLowerCase() === wanted && (kind === undefined || m.kind === kind));
}

/**
 * A device's parameters: plain defaults, then the library's model, then what stands beside the main value, then
 * `params`. Where a file cannot write infinity, 0 for VAF, VAR and IKF means "off".
 */
export function modelParameters<P extends object>(part: Part, plain: P): P {
  const model = part.model === undefined ? undefined : modelNamed(part.model, part.kind);
  const found = { ...plain } as Record<string, unknown>;
  for (const name of Object.keys(plain)) {
    for (const value of [model?.params[name], part[name], part.params?.[name]]) {
      if (typeof value === 'number' && Number.isFinite(value)) found[name] = value;
    }
  }
  for (const name of ['VAF', 'VAR', 'IKF']) if (found[name] === 0) found[name] = Number.POSITIVE_INFINITY;
  return found as P;
}
