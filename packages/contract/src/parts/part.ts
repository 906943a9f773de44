import type { BodySize } from '../body.ts';
import { field, type FieldValues, type FileFieldValues } from '../field.ts';
import type { Layer, ValueLayer } from '../names.ts';
import type { PART_DEFINITIONS, PartKind } from './index.ts';

/** What a resistor, capacitor or coil is made of. */
export const TECHNOLOGIES = [
  'carbon composition',
  'carbon film',
  'metal film',
  'wirewound',
  'electrolytic',
  'tantalum',
  'film',
  'paper',
  'ceramic',
  'mica',
] as const;
export type Technology = (typeof TECHNOLOGIES)[number];

/** Fields that every kind of part may have. */
export const COMMON_FIELDS = {
  tolerance: field.quantity('ratio', 'Tolerance', { min: 0, max: 10 }),
  voltage: field.quantity('voltage', 'Rated voltage', { above: 0 }),
  power: field.quantity('power', 'Rated power', { above: 0 }),
  technology: field.word(TECHNOLOGIES, 'Technology', { synonyms: { carbon: 'carbon composition' } }),
  package: field.text('Package', 24),
  pinout: field.text('Order of pins', 120),
  matched: field.text('Matched group', 64),
  maker: field.text('Maker', 80),
  series: field.text('Series', 80),
  type: field.text('Type', 80),
  note: field.text('Note', 2000),
} as const;

/** SI value of a part on one layer; a part can also be dead. Null: the layer says nothing. */
export type LayerValue = number | 'open' | 'short' | null;
/** A layer's value as a file may have it. */
export type FileLayerValue = number | string | null;

type Definition<K extends PartKind> = (typeof PART_DEFINITIONS)[K];

/** Parameters of a kind's equations, as far as they are given. */
export type ParamsOf<K extends PartKind> = {
  readonly [P in keyof Definition<K>['params']]?: number;
};
/** Parameters of a kind's equations, all of them. */
export type AllParamsOf<K extends PartKind> = {
  readonly [P in keyof Definition<K>['params']]: number;
};

interface Named<K extends PartKind> {
  readonly ref: string;
  readonly kind: K;
  /** Net by pin name. */
  readonly pins: Readonly<Record<string, string>>;
  /** Nets as they were said, where continuity has joined more; a pin that is missing was left to it. */
  readonly saidPins?: Readonly<Record<string, string>> | undefined;
  readonly model?: string | undefined;
  /** What the data sheet has around a pin, in words. */
  readonly pinNotes?: Readonly<Record<string, string>> | undefined;
  /** Its size where it is not the usual one, mm. */
  readonly body?: BodySize | undefined;
}

/** Values of fields and parameters by their names, in SI units. */
export type MeasuredParams = Readonly<Record<string, number>>;

/** A part of one kind without its layers' values. */
export type BarePart<K extends PartKind> = Named<K> & {
  readonly params?: ParamsOf<K> | undefined;
} & FieldValues<typeof COMMON_FIELDS> &
  FieldValues<Definition<K>['fields']>;

/** A part of one kind with its values in SI units; what is planned for it is a change. Fields it does not know are kept, under their own names. */
export type PartOf<K extends PartKind> = BarePart<K> & {
  readonly [L in ValueLayer]?: LayerValue | undefined;
} & {
  /** What was measured beside the main value, by the field or parameter it is of: it holds where the found value does. */
  readonly foundParams?: MeasuredParams | undefined;
};

/** A part as a file may have it: numbers, or text in any notation of the trade. */
export type FilePartOf<K extends PartKind> = Named<K> & {
  readonly params?: Readonly<Record<string, number | string>> | undefined;
} & FileFieldValues<typeof COMMON_FIELDS> &
  FileFieldValues<Definition<K>['fields']> & { readonly [L in Layer]?: FileLayerValue | undefined } & {
    readonly foundParams?: Readonly<Record<string, number | string>> | undefined;
  };

/** A part of any kind; its `kind` tells which. */
export type Part = { [K in PartKind]: PartOf<K> }[PartKind];
export type FilePart = { [K in PartKind]: FilePartOf<K> }[PartKind];
