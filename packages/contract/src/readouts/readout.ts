import { field, type FieldValues, type FileFieldValues } from '../field.ts';
import type { READOUT_DEFINITIONS, ReadoutKind } from './index.ts';

/**
 * What is wanted of a readout, in its unit: an end or two, or a target with what it may miss. It is firm, or with `wish` a
 * wish of that weight, above zero.
 */
export interface Want {
  readonly min?: number | undefined;
  readonly max?: number | undefined;
  readonly target?: number | undefined;
  readonly within?: number | undefined;
  readonly wish?: number | undefined;
}
export const WANT_ENDS = ['min', 'max', 'target', 'within'] as const;
export type FileWant = { readonly [E in (typeof WANT_ENDS)[number]]?: number | string | undefined } & {
  readonly wish?: number | undefined;
};

/** Fields that every readout may have. */
export const READOUT_COMMON_FIELDS = {
  setting: field.name('setting', 'With the controls at'),
} as const;

interface Named<K extends ReadoutKind> {
  readonly id: string;
  readonly name: string;
  readonly kind: K;
}

/** One kind of readout, its numbers in SI units. */
export type ReadoutOf<K extends ReadoutKind> = Named<K> & {
  readonly want?: Want | undefined;
} & FieldValues<typeof READOUT_COMMON_FIELDS> &
  FieldValues<(typeof READOUT_DEFINITIONS)[K]['fields']>;

export type FileReadoutOf<K extends ReadoutKind> = Named<K> & {
  readonly want?: FileWant | undefined;
} & FileFieldValues<typeof READOUT_COMMON_FIELDS> &
  FileFieldValues<(typeof READOUT_DEFINITIONS)[K]['fields']>;

/** One of the few numbers that matter for a unit; its `kind` tells which fields it has. */
export type Readout = { [K in ReadoutKind]: ReadoutOf<K> }[ReadoutKind];
export type FileReadout = { [K in ReadoutKind]: FileReadoutOf<K> }[ReadoutKind];
