import {
  definitionOf,
  type AllParamsOf,
  type BarePart,
  type OwnModel,
  type PartKind,
} from '@zemble/contract';
import { KINDS, resembling, type LayerPart, type Part } from '../circuit/index.ts';
import { problem, type Problem } from '../../base/errors/index.ts';
import { regulatorNumber, REGULATORS } from './regulators.ts';

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
  { name: '1N914', kind: 'diode', origin: TYPICAL, params: { IS: 2.52e-9, N: 1.752, RS: 0.568, BV: 75, IBV: 1e-4, CJO: 1.73e-12, VJ: 0.6, M: 0.4, TT: 6e-9 } },
  { name: '1N4001', kind: 'diode', origin: TYPICAL, params: { IS: 1.4e-9, N: 1.7, RS: 0.03, BV: 50, IBV: 1e-5, CJO: 2.6e-11, VJ: 0.7, M: 0.35, TT: 3e-6 } },
  { name: '1N4007', kind: 'diode', origin: TYPICAL, params: { IS: 7.03e-9, N: 1.809, RS: 0.034, BV: 1000, IBV: 1e-5, CJO: 1e-11, VJ: 0.7, M: 0.35, TT: 4e-6 } },
  { name: '1N34A', kind: 'diode', origin: TYPICAL, params: { IS: 2e-7, N: 1.3, RS: 7, BV: 75, IBV: 2e-5, CJO: 1e-12, VJ: 0.3, M: 0.3 } },
  { name: '1N5819', kind: 'diode', origin: TYPICAL, params: { IS: 3.2e-6, N: 1.05, RS: 0.05, BV: 40, IBV: 1e-3, CJO: 1.1e-10, VJ: 0.35, M: 0.4 } },
  { name: 'red', kind: 'led', origin: TYPICAL, params: { IS: 1e-18, N: 1.95, RS: 2 } },
  { name: 'green', kind: 'led', origin: TYPICAL, params: { IS: 1e-20, N: 1.95, RS: 3 } },
  { name: 'blue', kind: 'led', origin: TYPICAL, params: { IS: 1e-26, N: 2.2, RS: 5 } },
  { name: 'TL072', kind: 'opamp', origin: TYPICAL, params: { AOL: 2e5, GBW: 3e6, RIN: 1e12, ROUT: 100, IB: 6.5e-11, VOS: 0, EN: 1.8e-8, ENF: 100, IN: 1e-14, SR: 1.3e7, headroomHigh: 1.5, headroomLow: 1.5, IQ: 1.4e-3, minSupply: 7, IMAX: 0.02 } },
  { name: 'NE5532', kind: 'opamp', origin: TYPICAL, params: { AOL: 1e5, GBW: 1e7, RIN: 3e5, ROUT: 30, IB: 2e-7, VOS: 0, EN: 5e-9, ENF: 100, IN: 7e-13, SR: 9e6, headroomHigh: 1.5, headroomLow: 1.5, IQ: 4e-3, minSupply: 6, IMAX: 0.038 } },
  { name: 'LM358', kind: 'opamp', origin: TYPICAL, params: { AOL: 1e5, GBW: 1e6, RIN: 1e7, ROUT: 300, IB: 4.5e-8, VOS: 0, EN: 4e-8, ENF: 20, IN: 1e-13, SR: 5e5, headroomHigh: 1.5, headroomLow: 0.02, IQ: 3.5e-4, minSupply: 3, IMAX: 0.02 } },
  { name: '2N2222', kind: 'bjt', origin: TYPICAL, params: { polarity: 'npn', IS: 1.4e-14, BF: 255, BR: 6, VAF: 74, IKF: 0.28, ISE: 1.4e-14, NE: 1.3, RB: 10, RC: 1, CJE: 2.2e-11, CJC: 7.3e-12, TF: 4.1e-10 } },
  { name: '2N2907', kind: 'bjt', origin: TYPICAL, params: { polarity: 'pnp', IS: 6.5e-16, BF: 230, BR: 3.5, VAF: 115, IKF: 1, ISE: 5.5e-15, NE: 1.4, RB: 10, RC: 0.7, CJE: 2e-11, CJC: 1.5e-11, TF: 6e-10 } },
  { name: '2N5088', kind: 'bjt', origin: TYPICAL, params: { polarity: 'npn', IS: 5.9e-15, BF: 620, BR: 1.3, VAF: 62, IKF: 0.015, ISE: 5.9e-15, NE: 1.4, RB: 10, RC: 1.6, CJE: 5e-12, CJC: 4e-12, TF: 8e-10 } },
  { name: '2N5401', kind: 'bjt', origin: TYPICAL, params: { polarity: 'pnp', IS: 2.1e-14, BF: 130, BR: 4.4, VAF: 100, IKF: 0.15, RB: 10, RC: 1.6, CJE: 7.7e-11, CJC: 1.7e-11, TF: 6e-10 } },
  { name: '2N5551', kind: 'bjt', origin: TYPICAL, params: { polarity: 'npn', IS: 2.5e-15, BF: 180, BR: 3.2, VAF: 100, IKF: 0.35, RB: 10, RC: 1, CJE: 7.1e-11, CJC: 4.9e-12, TF: 6e-10 } },
  { name: 'BC337', kind: 'bjt', origin: TYPICAL, params: { polarity: 'npn', IS: 4.1e-14, BF: 290, BR: 14, VAF: 145, IKF: 0.6, ISE: 2e-14, NE: 1.6, RB: 40, RC: 0.25, RE: 0.1, CJE: 4e-11, CJC: 1.2e-11, TF: 7e-10 } },
  { name: 'BC559C', kind: 'bjt', origin: TYPICAL, params: { polarity: 'pnp', IS: 3.8e-14, BF: 480, BR: 6, VAF: 35, IKF: 0.07, RB: 100, RC: 0.6, RE: 0.5, CJE: 1.6e-11, CJC: 1e-11, TF: 6.6e-10 } },
  { name: '2N5457', kind: 'jfet', origin: TYPICAL, params: { polarity: 'n', VTO: -1.8, BETA: 9e-4, LAMBDA: 2e-3, IS: 3e-14, CGS: 4e-12, CGD: 3e-12 } },
  { name: '2N5458', kind: 'jfet', origin: TYPICAL, params: { polarity: 'n', VTO: -2.9, BETA: 7e-4, LAMBDA: 3e-3, IS: 3e-14, CGS: 4e-12, CGD: 3e-12 } },
  { name: '2N3819', kind: 'jfet', origin: TYPICAL, params: { polarity: 'n', VTO: -3, BETA: 1.3e-3, LAMBDA: 2.2e-3, IS: 3e-14, CGS: 2.4e-12, CGD: 1.6e-12 } },
  { name: 'J201', kind: 'jfet', origin: TYPICAL, params: { polarity: 'n', VTO: -0.75, BETA: 1.1e-3, LAMBDA: 4e-3, IS: 3e-14, CGS: 4e-12, CGD: 4e-12 } },
  { name: 'J113', kind: 'jfet', origin: TYPICAL, params: { polarity: 'n', VTO: -1.5, BETA: 9e-3, LAMBDA: 3e-3, IS: 3e-14, CGS: 6e-12, CGD: 6e-12 } },
  { name: '2N5460', kind: 'jfet', origin: TYPICAL, params: { polarity: 'p', VTO: -2.5, BETA: 5e-4, LAMBDA: 5e-3, IS: 3e-14, CGS: 4e-12, CGD: 3e-12 } },
  { name: '2N7000', kind: 'mosfet', origin: TYPICAL, params: { polarity: 'n', VTO: 2.1, KP: 0.2, LAMBDA: 0.01, CGS: 2e-11, CGD: 5e-12 } },
  { name: '12AX7', kind: 'triode', origin: 'Koren 1996', params: { MU: 100, EX: 1.4, KG1: 1060, KP: 600, KVB: 300, CGK: 2.3e-12, CGA: 2.4e-12, CAK: 9e-13, RGI: 2000 } },
  { name: '12AU7', kind: 'triode', origin: 'Koren 1996', params: { MU: 21.5, EX: 1.3, KG1: 1180, KP: 84, KVB: 300, CGK: 2.3e-12, CGA: 2.2e-12, CAK: 1e-12, RGI: 2000 } },
  { name: '12AT7', kind: 'triode', origin: TYPICAL, params: { MU: 60, EX: 1.35, KG1: 460, KP: 300, KVB: 300, CGK: 2.7e-12, CGA: 1.6e-12, CAK: 6e-13, RGI: 2000 } },
  { name: '6SN7', kind: 'triode', origin: 'Koren 1996', params: { MU: 21, EX: 1.36, KG1: 1460, KP: 150, KVB: 400, CGK: 2.4e-12, CGA: 3.9e-12, CAK: 7e-13, RGI: 2000 } },
  { name: 'EL34', kind: 'pentode', origin: 'Koren 1996', params: { MU: 11, EX: 1.35, KG1: 650, KG2: 4200, KP: 60, KVB: 24, CGK: 1.5e-11, CGA: 1e-12 } },
  { name: 'EL84', kind: 'pentode', origin: TYPICAL, params: { MU: 19, EX: 1.24, KG1: 401, KG2: 4500, KP: 117, KVB: 17.5, CGK: 1.1e-11, CGA: 5e-13 } },
  { name: 'yellow', kind: 'led', origin: TYPICAL, params: { IS: 1e-19, N: 1.95, RS: 2 } },
  { name: 'white', kind: 'led', origin: TYPICAL, params: { IS: 1e-26, N: 2.2, RS: 5 } },
  { name: 'UA741', kind: 'opamp', origin: TYPICAL, params: { AOL: 2e5, GBW: 1e6, RIN: 2e6, ROUT: 75, IB: 8e-8, VOS: 0, EN: 2.5e-8, ENF: 200, IN: 5e-13, SR: 5e5, headroomHigh: 1.5, headroomLow: 1.5, IQ: 1.7e-3, minSupply: 7, IMAX: 0.025 } },
  { name: 'RC4558', kind: 'opamp', origin: TYPICAL, params: { AOL: 2e5, GBW: 3e6, RIN: 5e6, ROUT: 75, IB: 1.5e-7, VOS: 0, EN: 8e-9, ENF: 100, IN: 4e-13, SR: 1.7e6, headroomHigh: 1.5, headroomLow: 1.5, IQ: 1.75e-3, minSupply: 7, IMAX: 0.02 } },
  { name: 'LM324', kind: 'opamp', origin: TYPICAL, params: { AOL: 1e5, GBW: 1e6, RIN: 1e7, ROUT: 300, IB: 4.5e-8, VOS: 0, EN: 3.5e-8, ENF: 20, IN: 1e-13, SR: 5e5, headroomHigh: 1.5, headroomLow: 0.02, IQ: 3.5e-4, minSupply: 3, IMAX: 0.02 } },
  { name: 'OP07', kind: 'opamp', origin: TYPICAL, params: { AOL: 4e5, GBW: 6e5, RIN: 3e7, ROUT: 60, IB: 2e-9, VOS: 0, EN: 1e-8, ENF: 10, IN: 1.2e-13, SR: 3e5, headroomHigh: 2, headroomLow: 2, IQ: 2.5e-3, minSupply: 6, IMAX: 0.02 } },
  { name: 'TL082', kind: 'opamp', origin: TYPICAL, params: { AOL: 2e5, GBW: 3e6, RIN: 1e12, ROUT: 100, IB: 3e-11, VOS: 0, EN: 2.5e-8, ENF: 100, IN: 1e-14, SR: 1.3e7, headroomHigh: 1.5, headroomLow: 1.5, IQ: 1.4e-3, minSupply: 7, IMAX: 0.02 } },
  { name: 'electret', kind: 'capsule', origin: TYPICAL, params: { ID: 3e-4, ROUT: 5e4, SENS: 0.01, RLOAD: 2200, EN: 2e-8, VKNEE: 0.3 } },
  ...REGULATORS.map(({ name, IQ }): Model => ({ name, kind: 'regulator', origin: TYPICAL, params: { IQ } })),
]; // prettier-ignore

/** A model of the library by its name, in any case; a regulator's with a maker's letters around it as well. */
export function modelNamed(name: string, kind?: PartKind): Model | undefined {
  const wanted = name.trim().toLowerCase();
  const number = regulatorNumber(name);
  return MODELS.find(
    (m) =>
      (kind === undefined || m.kind === kind) &&
      m.name.toLowerCase() === (m.kind === 'regulator' ? number : wanted),
  );
}

/** What the circuit's own models and the library say of a part; own models come first. */
function modelOf(part: ModelledPart, own: readonly OwnModel[]): ModelParams | undefined {
  if (part.model === undefined) return undefined;
  const wanted = part.model.trim().toLowerCase();
  const brought = own.find((m) => m.name.toLowerCase() === wanted && m.kind === part.kind);
  return (brought ?? modelNamed(part.model, part.kind))?.params;
}

type ModelParams = Readonly<Record<string, number | string>>;
type ModelledPart = Pick<Part, 'kind' | 'model' | 'params'>;

/**
 * All parameters of a part's equations: its own, then those of the circuit's own models and the library's, then the
 * plain defaults. Where a file cannot write infinity, 0 stands for it in the parameters that say so.
 */
export function modelParameters<K extends PartKind>(
  part: Pick<BarePart<K>, 'kind' | 'model' | 'params'>,
  own: readonly OwnModel[] = [],
): AllParamsOf<K> {
  const given = new Map<string, unknown>(Object.entries(part.params ?? {}));
  const model = new Map<string, unknown>(Object.entries(modelOf(part, own) ?? {}));
  return Object.fromEntries(
    Object.entries(definitionOf(part.kind).params).map(([name, field]) => {
      const value = [given.get(name), model.get(name)].find((v) => typeof v === 'number') ?? field.usual;
      return [name, value === 0 && field.isOffAtZero === true ? Number.POSITIVE_INFINITY : value];
    }),
  ) as AllParamsOf<K>;
}

/** Whether a part or its model says a parameter, so that it is not merely the plain default. */
export const hasModelParameter = (part: ModelledPart, name: string, own: readonly OwnModel[] = []): boolean =>
  new Map(Object.entries(part.params ?? {})).has(name) ||
  new Map(Object.entries(modelOf(part, own) ?? {})).has(name);

/** The polarity of a transistor: its own, then its model's; undefined when neither says it. */
export function polarityOf(part: Part | LayerPart, own: readonly OwnModel[] = []): string | undefined {
  if (part.kind !== 'bjt' && part.kind !== 'jfet' && part.kind !== 'mosfet') return undefined;
  if (part.polarity !== undefined) return part.polarity;
  const polarity = new Map(Object.entries(modelOf(part, own) ?? {})).get('polarity');
  return typeof polarity === 'string' ? polarity.toLowerCase() : undefined;
}

/** Whether a part is the mirrored type of its kind: pnp, or p-channel. */
export const isPType = (part: Part | LayerPart, own: readonly OwnModel[] = []): boolean => {
  const polarity = polarityOf(part, own);
  return polarity === 'pnp' || polarity === 'p';
};

/** Kinds of which the library has models. */
const MODELLED_KINDS = new Set(MODELS.map((m) => m.kind));

/** What is taken for a part whose type number nothing is known of, as a problem; undefined when it is known. */
export function unknownModel(part: Part | LayerPart, own: readonly OwnModel[] = []): Problem | undefined {
  if (part.model === undefined || !MODELLED_KINDS.has(part.kind) || modelOf(part, own)) return undefined;
  const names = [...own, ...MODELS].filter((m) => m.kind === part.kind).map((m) => m.name);
  return problem('circuit/unknown-model', {
    ref: part.ref,
    text: part.model,
    detail: `A plain ${KINDS[part.kind].words} is computed`,
    resembles: resemblingModel(part.model, names),
  });
}

/** Type numbers are alike when they differ in one place. */
const resemblingModel = (name: string, names: readonly string[]) => {
  const near = resembling(name, names);
  return near !== undefined && Math.abs(near.length - name.length) <= 1 ? near : undefined;
};
