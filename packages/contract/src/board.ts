import { z } from 'zod';
import { netNameSchema } from './field.ts';
import { refSchema } from './part-schema.ts';
import { photoPlaceSchema } from './photo.ts';

/** Strips run along each row; of pads there is one a hole, and wires do the joining. */
export const BOARD_STYLES = ['strip', 'pads'] as const;
export type BoardStyle = (typeof BOARD_STYLES)[number];

/** The most holes along one edge of a board: half a metre at 2.54 mm. */
export const MOST_HOLES = 200;
/** Holes beside a board are read, so that they can be told; not those that lie nowhere near. */
const FARTHEST = 10_000;

const edgeSchema = (of: string) =>
  z
    .number(`A board has a whole number of ${of}.`)
    .int(`A board has a whole number of ${of}.`)
    .min(1, `A board has at least one of its ${of}.`)
    .max(MOST_HOLES, `A board has at most ${MOST_HOLES} ${of}.`);
const coordinateSchema = z
  .number('A hole is [column, row], two whole numbers from 0.')
  .int('A hole is [column, row], two whole numbers from 0.')
  .min(-FARTHEST, 'A hole lies nowhere near the board.')
  .max(FARTHEST, 'A hole lies nowhere near the board.');

/** A hole of a board: column and row from 0, seen from the parts' side. */
export const holeSchema = z.tuple([coordinateSchema, coordinateSchema]);
export type Hole = readonly [number, number];

/** A part on a board: the hole of each of its pins. */
export const boardPlaceSchema = z.looseObject({
  ref: refSchema,
  holes: z.record(z.string().min(1).max(32), holeSchema),
});
export interface BoardPlace {
  readonly ref: string;
  readonly holes: Readonly<Record<string, Hole>>;
}

/** A wire on the parts' side. */
export const boardLinkSchema = z.looseObject({ from: holeSchema, to: holeSchema });
export interface BoardLink {
  readonly from: Hole;
  readonly to: Hole;
}

/** Where a wire leaves the board. Its name is the net's, unless several wires of a net leave. */
export const boardTerminalSchema = z.looseObject({
  net: netNameSchema,
  hole: holeSchema,
  name: z.string().trim().min(1).max(64).optional(),
});
export interface BoardTerminal {
  readonly net: string;
  readonly hole: Hole;
  readonly name?: string | undefined;
}

/** A hole of the board, and where it is on a photo. */
const boardMarkSchema = z.object({ hole: holeSchema, at: photoPlaceSchema });
export interface BoardMark {
  readonly hole: Hole;
  readonly at: { readonly x: number; readonly y: number };
}
/** A photo that lies under the layout, by two holes that are seen on it. */
export interface BoardPhoto {
  readonly photoId: string;
  readonly marks: readonly [BoardMark, BoardMark];
}

/** A layout on a grid of holes of 2.54 mm. */
export const boardSchema = z.looseObject({
  id: z.string().trim().min(1).max(64),
  name: z.string().trim().max(120).optional(),
  style: z.enum(BOARD_STYLES, { error: `A board is of the style ${BOARD_STYLES.join(' or ')}.` }),
  columns: edgeSchema('columns'),
  rows: edgeSchema('rows'),
  places: z.array(boardPlaceSchema).max(2000).default([]),
  /** Holes at which the strip is cut. */
  cuts: z.array(holeSchema).max(5000).default([]),
  links: z.array(boardLinkSchema).max(2000).default([]),
  terminals: z.array(boardTerminalSchema).max(500).default([]),
  /** The photo under the layout: two holes, and where they are on it, in fractions of its width and height. */
  photo: z
    .object({ photoId: z.string().min(1).max(64), marks: z.tuple([boardMarkSchema, boardMarkSchema]) })
    .optional(),
}) as z.ZodType<Board, FileBoard>;
export interface Board {
  readonly id: string;
  readonly name?: string | undefined;
  readonly style: BoardStyle;
  readonly columns: number;
  readonly rows: number;
  readonly places: readonly BoardPlace[];
  readonly cuts: readonly Hole[];
  readonly links: readonly BoardLink[];
  readonly terminals: readonly BoardTerminal[];
  readonly photo?: BoardPhoto | undefined;
}
/** A board as a file may have it: without the lists that are empty. */
export type FileBoard = Pick<Board, 'id' | 'style' | 'columns' | 'rows'> & Partial<Board>;
export const boardsSchema = z.array(boardSchema).max(20);
