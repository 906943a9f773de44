import type { BodySize } from '@zemble/contract';
import type { LayerPart } from '../../circuit/circuit/index.ts';
import { isPolarised } from '../../circuit/circuit/index.ts';
import { outlineNamed, pinoutOf } from '../../circuit/pinout/index.ts';

/** Pitch of the holes of strip board and pads, mm (0.1 inch). */
export const PITCH_MM = 2.54;

/**
 * How a part sits on a board: `axial`, a body between two leads that bend down beside it, or that stands on one of them;
 * `radial`, a body over its leads; `row`, legs or lugs in a row; `dual in line`, two rows; `none`, not made for a board of holes.
 */
export type Mounting = 'axial' | 'radial' | 'row' | 'dual in line' | 'none';

/** The size of a part and how it is fitted. */
export interface Body {
  readonly mounting: Mounting;
  readonly lengthMm: number;
  readonly widthMm: number;
  /** Above the board as it lies. */
  readonly heightMm: number;
  /** Distance of neighbouring leads as they come out. */
  readonly leadPitchMm: number;
  /** Seen from above it is round. */
  readonly isRound?: true;
  /** Its leads can be bent to another pitch. */
  readonly bends: boolean;
  /** It gets hot in use: electrolytics keep away from it. */
  readonly isHot?: true;
}

type Sized = readonly [lengthMm: number, widthMm: number, heightMm: number, leadPitchMm: number];

const axial = ([lengthMm, widthMm, heightMm, leadPitchMm]: Sized, isHot = false): Body => ({
  mounting: 'axial',
  lengthMm,
  widthMm,
  heightMm,
  leadPitchMm,
  bends: true,
  ...(isHot ? { isHot: true } : {}),
});
const radial = ([lengthMm, widthMm, heightMm, leadPitchMm]: Sized, bends = true): Body => ({
  mounting: 'radial',
  lengthMm,
  widthMm,
  heightMm,
  leadPitchMm,
  bends,
});
const row = ([lengthMm, widthMm, heightMm, leadPitchMm]: Sized, isHot = false): Body => ({
  mounting: 'row',
  lengthMm,
  widthMm,
  heightMm,
  leadPitchMm,
  bends: true,
  ...(isHot ? { isHot: true } : {}),
});
const can = (diameter: number, heightMm: number, leadPitchMm: number): Body => ({
  ...radial([diameter, diameter, heightMm, leadPitchMm], diameter < SNAP_IN_FROM),
  isRound: true,
});
const NONE: Body = {
  mounting: 'none',
  lengthMm: 30,
  widthMm: 30,
  heightMm: 50,
  leadPitchMm: PITCH_MM,
  bends: false,
};

/** From this diameter a can has stiff pins instead of wires, mm. */
const SNAP_IN_FROM = 20;

/** The first of a table's rows that a measure does not pass. */
const upTo = <T>(table: readonly (readonly [most: number, T])[], measure: number): T =>
  (table.find(([most]) => measure <= most) ?? table.at(-1)!)[1];

/** Resistors by rated power, W: leaded film types to 2 W, cemented wirewound above (catalogues of several makers, from memory). */
const RESISTORS: readonly (readonly [number, Sized])[] = [
  [0.125, [3.7, 1.7, 1.7, 7.62]],
  [0.4, [6.3, 2.4, 2.4, 10.16]],
  [0.6, [9, 3.2, 3.2, 12.7]],
  [1, [11, 4.5, 4.5, 15.24]],
  [3, [15.5, 5.2, 5.2, 20.32]],
  [5, [22, 9.5, 9.5, 27.94]],
  [Infinity, [48, 9.5, 9.5, 53.34]],
];
const USUAL_POWER_W = 0.25;
/** From this rating a resistor is there to get hot, W (common practice). */
const HOT_FROM_W = 1;

/** Radial electrolytics by capacitance times rated voltage, F V: diameter, height, pitch (catalogues, from memory). */
const CANS: readonly (readonly [number, readonly [number, number, number]])[] = [
  [2.6e-3, [5, 11, 2]],
  [6e-3, [6.3, 11, 2.5]],
  [1.2e-2, [8, 12, 3.5]],
  [2.6e-2, [10, 16, 5]],
  [5.5e-2, [12.5, 20, 5]],
  [0.12, [16, 25, 7.5]],
  [0.19, [18, 36, 7.5]],
  [0.4, [22, 40, 10]],
  [Infinity, [35, 50, 10]],
];
const USUAL_CAN_V = 25;

/** Film capacitors by capacitance at up to 100 V, F: box and pitch (catalogues, from memory). */
const FILMS: readonly (readonly [number, Sized])[] = [
  [1.2e-7, [7.2, 2.5, 6.5, 5.08]],
  [3.4e-7, [7.2, 3.5, 7.5, 5.08]],
  [6.9e-7, [7.2, 4.5, 9.5, 5.08]],
  [1.2e-6, [7.2, 6, 11, 5.08]],
  [2.3e-6, [13, 7, 13, 10.16]],
  [Infinity, [26.5, 10, 18, 22.86]],
];
/** Those for 250 V and more. */
const HIGH_VOLTAGE_FILMS: readonly (readonly [number, Sized])[] = [
  [4.8e-8, [13, 5, 11, 10.16]],
  [1.2e-7, [18, 6, 12, 15.24]],
  [4.8e-7, [26.5, 8.5, 17, 22.86]],
  [Infinity, [31.5, 14, 25, 27.94]],
];
const HIGH_VOLTAGE_FROM = 200;
/** Below this a capacitor of which nothing is said is ceramic, F (common practice). */
const CERAMIC_BELOW = 1e-9;

/** Three-legged cases with the pitch of their legs (JEDEC TO-92, TO-126, TO-220, TO-18). */
const CASES: Readonly<Record<string, Body>> = {
  'TO-92': row([4.8, 3.8, 8, 1.27]),
  'TO-18': row([5.4, 5.4, 6, 1.27]),
  'TO-126': row([8, 3.5, 15, 2.29], true),
  'TO-220': row([10.2, 4.6, 19, 2.54], true),
};
const DUAL_ROWS_MM = 6.4;
const DUAL_HEIGHT_MM = 8;

/** Base of the usual size, before what the part says of itself. */
function usualBody(part: Pick<LayerPart, 'kind' | 'ref'> & Partial<LayerPart>): Body {
  const cased = casedBody(part);
  if (cased) return cased;
  switch (part.kind) {
    case 'resistor': {
      const power = part.power ?? USUAL_POWER_W;
      return axial(upTo(RESISTORS, power), power >= HOT_FROM_W);
    }
    case 'capacitor':
      return capacitorBody(part);
    case 'diode':
    case 'zener': {
      const isRectifier = /^1N[45]\d{3}$/i.test(part.model ?? '') && !/^1N4148$/i.test(part.model ?? '');
      return isRectifier || (part.power ?? 0) >= 1
        ? axial([5.2, 2.7, 2.7, 10.16])
        : axial([4, 1.8, 1.8, 7.62]);
    }
    case 'led':
      return { ...radial([5, 5, 9, PITCH_MM]), isRound: true };
    case 'inductor':
      return typeof part.value === 'number' && part.value >= 1e-3
        ? { ...radial([9, 9, 12, 5.08]), isRound: true }
        : axial([7, 3.5, 3.5, 10.16]);
    case 'bjt':
    case 'jfet':
    case 'mosfet':
      return (part.power ?? 0) > 1 ? CASES['TO-220']! : CASES['TO-92']!;
    case 'regulator':
      return CASES['TO-220']!;
    case 'opamp':
    case 'timer555':
      return dualInLine(8);
    case 'potentiometer':
      return row([9.5, 10, 5, PITCH_MM]);
    case 'switch':
    case 'jumper':
    case 'changeover':
    case 'capsule':
    case 'clock':
    case 'box':
      return row([PITCH_MM, PITCH_MM, 9, PITCH_MM]);
    case 'fuse':
      return radial([22, 9, 12, 22.86], false);
    default:
      return NONE;
  }
}

/** The body that the case of a part gives it. */
function casedBody(part: Pick<LayerPart, 'kind' | 'ref'> & Partial<LayerPart>): Body | undefined {
  const name = part.package;
  const outline = outlineNamed(name ?? '') ?? pinoutOf(part)?.outline;
  if (!outline) return undefined;
  if (outline.shape === 'dual in line') return dualInLine(outline.pins);
  if (outline.shape === 'single in line') return row([outline.pins * PITCH_MM, 3, 10, PITCH_MM]);
  return name === undefined && outline.name === 'TO-92' && (part.power ?? 0) > 1
    ? undefined
    : CASES[outline.name];
}

const dualInLine = (pins: number): Body => ({
  mounting: 'dual in line',
  lengthMm: (pins / 2) * PITCH_MM,
  widthMm: pins >= 24 ? 2 * DUAL_ROWS_MM : DUAL_ROWS_MM,
  heightMm: DUAL_HEIGHT_MM,
  leadPitchMm: PITCH_MM,
  bends: false,
});

function capacitorBody(part: Pick<LayerPart, 'kind'> & Partial<LayerPart>): Body {
  const farads = typeof part.value === 'number' ? part.value : 0;
  const { technology, voltage } = part;
  const isCan =
    technology === 'electrolytic' ||
    (technology === undefined && (isPolarised(part as LayerPart) || farads > LARGEST_FILM));
  if (isCan) return can(...upTo(CANS, farads * (voltage ?? USUAL_CAN_V)));
  if (technology === 'tantalum') return radial([5, 5, 9, PITCH_MM]);
  if (
    technology === 'ceramic' ||
    technology === 'mica' ||
    (technology === undefined && farads < CERAMIC_BELOW)
  )
    return radial([5, 2.5, 6, farads < 1e-8 || farads > 9e-8 ? PITCH_MM : 5.08]);
  return radial(upTo((voltage ?? 0) >= HIGH_VOLTAGE_FROM ? HIGH_VOLTAGE_FILMS : FILMS, farads));
}
/** Above this a capacitor of which nothing is said is an electrolytic, F. */
const LARGEST_FILM = 1.05e-6;

/** The size of a part: what it says of itself, before what its kind, value and rating usually have. */
export function bodyOf(part: Pick<LayerPart, 'kind' | 'ref'> & Partial<LayerPart>): Body {
  const usual = usualBody(part);
  const own: BodySize = part.body ?? {};
  const isSaid = own.leadPitchMm !== undefined && usual.mounting === 'none';
  return {
    ...usual,
    ...(isSaid ? { mounting: 'row' as const } : {}),
    lengthMm: own.lengthMm ?? usual.lengthMm,
    widthMm: own.widthMm ?? usual.widthMm,
    heightMm: own.heightMm ?? usual.heightMm,
    leadPitchMm: own.leadPitchMm ?? usual.leadPitchMm,
  };
}
