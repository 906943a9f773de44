import type {
  BeepData,
  BenchTicks,
  Board,
  Change,
  ChangeSet,
  EvidenceData,
  FilePhoto,
  Hazard,
  IntakeData,
  OwnModel,
  Panel,
  Part,
  PathData,
  Readout,
  Setting,
  UnitFile,
  Wire,
} from '@zemble/contract';

export type { BarePart, LayerValue, MeasuredParams, Part, PartOf, ParamsOf, Setting } from '@zemble/contract';

/** A circuit as it is written down: parts as they came with their values, and the changes to them. */
export interface Circuit {
  readonly ground: string;
  readonly parts: readonly Part[];
  /** Models that the unit brings along; they come before the library's. */
  readonly models?: readonly OwnModel[] | undefined;
  /** What was done to it, or is to be, in order. */
  readonly changes?: readonly Change[] | undefined;
  /** Nets where something was taken away before it was written down; what floats by that rests in the air. */
  readonly loose?: readonly string[] | undefined;
  /** What beeped with what as it was traced, in order; the parts' nets follow from it. */
  readonly beeps?: readonly BeepData[] | undefined;
  /** Alternatives among the changes. */
  readonly sets?: readonly ChangeSet[] | undefined;
}

/** A whole unit as core works with it: the unit file with every value a number. Fields it does not know are kept. */
export interface UnitDocument {
  readonly unit: {
    readonly name?: string | undefined;
    readonly kind?: string | undefined;
    readonly hazards?: readonly Hazard[] | undefined;
    /** What else can hurt, in free words. */
    readonly hazardNotes?: string | undefined;
    readonly notes?: string | undefined;
  };
  readonly circuit: Circuit;
  readonly readouts: readonly Readout[];
  readonly settings?: readonly Setting[] | undefined;
  readonly path?: PathData | undefined;
  readonly evidence?: readonly EvidenceData[] | undefined;
  readonly intake?: IntakeData | undefined;
  readonly log?: UnitFile['log'];
  readonly readings?: UnitFile['readings'];
  readonly drawing?: UnitFile['drawing'];
  readonly photos?: readonly FilePhoto[] | undefined;
  /** Wires between parts off the board, and to it. */
  readonly wires?: readonly Wire[] | undefined;
  readonly boards?: readonly Board[] | undefined;
  readonly panels?: readonly Panel[] | undefined;
  /** Steps of the bench work that were ticked. */
  readonly bench?: { readonly ticks: BenchTicks } | undefined;
}

/** Net names of a circuit in order of first appearance, ground first. */
export function netsOf(circuit: {
  readonly ground: string;
  readonly parts: readonly { readonly pins: Readonly<Record<string, string>> }[];
}): string[] {
  const nets = new Set<string>([circuit.ground]);
  for (const part of circuit.parts) for (const net of Object.values(part.pins)) nets.add(net);
  return [...nets];
}

/** Whether a part is an electrolytic or another capacitor with a plus and a minus. */
export const isPolarised = (part: Pick<Part, 'kind'>): boolean =>
  part.kind === 'capacitor' && 'polarised' in part && part.polarised === true;
