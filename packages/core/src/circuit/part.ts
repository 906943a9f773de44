import {
  LAYERS,
  type EvidenceData,
  type IntakeData,
  type Layer,
  type OwnModel,
  type PartKind,
  type PathData,
  type ReadoutKind,
} from '@halfsplit/contract';

/** SI value of a part on one layer; a part can also be dead. Null: the layer says nothing. */
export type LayerValue = number | 'open' | 'short' | null;

/** A part with its values in SI units. Fields it does not know are kept. */
export interface Part {
  readonly ref: string;
  readonly kind: PartKind;
  /** Net by pin name. */
  readonly pins: Readonly<Record<string, string>>;
  readonly marked?: LayerValue | undefined;
  readonly found?: LayerValue | undefined;
  readonly planned?: LayerValue | undefined;
  readonly proven?: LayerValue | undefined;
  /** Fraction. */
  readonly tolerance?: number | undefined;
  readonly model?: string | undefined;
  readonly params?: Readonly<Record<string, number | string>> | undefined;
  readonly [field: string]: unknown;
}

export interface Circuit {
  readonly ground: string;
  readonly parts: readonly Part[];
  /** Models that the unit brings along; they come before the library's. */
  readonly models?: readonly OwnModel[] | undefined;
  readonly [field: string]: unknown;
}

export interface Want {
  readonly min?: number | undefined;
  readonly max?: number | undefined;
  readonly target?: number | undefined;
  readonly within?: number | undefined;
}

/** One of the few numbers that matter for a unit; the further fields depend on its kind. */
export interface Readout {
  readonly id: string;
  readonly name: string;
  readonly kind: ReadoutKind;
  readonly want?: Want | undefined;
  readonly [field: string]: unknown;
}

/** A whole unit as core works with it: the unit file with every value a number. */
export interface UnitDocument {
  readonly unit: {
    readonly name?: string | undefined;
    readonly kind?: string | undefined;
    readonly hazards?: readonly string[] | undefined;
    readonly notes?: string | undefined;
    readonly [field: string]: unknown;
  };
  readonly circuit: Circuit;
  readonly readouts: readonly Readout[];
  readonly path?: PathData | undefined;
  readonly evidence?: readonly EvidenceData[] | undefined;
  readonly intake?: IntakeData | undefined;
  readonly [field: string]: unknown;
}

/** The layer a part's value comes from when `layer` is asked for, and the value; null when no layer has one. */
export function valueOnLayer(
  part: Part,
  layer: Layer,
): { layer: Layer; value: Exclude<LayerValue, null> } | null {
  for (let i = LAYERS.indexOf(layer); i >= 0; i -= 1) {
    const name = LAYERS[i]!;
    const value = part[name];
    if (value !== null && value !== undefined) return { layer: name, value };
  }
  return null;
}

/** A further electrical parameter in SI units: `params` first, then the field beside the main value. */
export function parameter(part: Part, name: string): number | undefined {
  const value = part.params?.[name] ?? part[name];
  return typeof value === 'number' && Number.isFinite(value) ? value : undefined;
}

/** Net names of a circuit in order of first appearance, ground first. */
export function netsOf(circuit: Circuit): string[] {
  const nets = new Set<string>([circuit.ground]);
  for (const part of circuit.parts) for (const net of Object.values(part.pins)) nets.add(net);
  return [...nets];
}

/** The same circuit with one layer's value of some parts replaced. */
export function withValues(circuit: Circuit, layer: Layer, values: ReadonlyMap<string, LayerValue>): Circuit {
  return {
    ...circuit,
    parts: circuit.parts.map((p) => (values.has(p.ref) ? { ...p, [layer]: values.get(p.ref) ?? null } : p)),
  };
}
