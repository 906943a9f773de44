import type { Board, Panel, PanelControl } from '@zemble/contract';
import { depthOfOverlap, PITCH_MM, rectangle, type PointMm, type Polygon } from '../bodies/index.ts';
import { readPlaces } from '../board/index.ts';
import type { LayerCircuit } from '../../circuit/circuit/index.ts';

/** Something that stands under a panel. */
export interface Standing {
  readonly name: string;
  readonly shape: Polygon;
  /** Above the board's surface, mm. */
  readonly heightMm: number;
}

export type FitCode = 'collision' | 'close' | 'controls' | 'edge' | 'deep' | 'tall' | 'beside';

export interface FitProblem {
  readonly code: FitCode;
  readonly message: string;
  /** Ids of the controls that it is about. */
  readonly controls: readonly string[];
  /** Names of what they meet. */
  readonly meets: readonly string[];
}

/** Air that is left between a control and what stands under it, mm (common practice: a lid gives, and parts stand askew). */
const AIR_MM = 2;
/** Air beside it, mm: nothing sits truer than that on its legs or its nut (common practice). */
const SIDE_AIR_MM = 1;

const nameOf = ({
  id,
  ref,
  name,
}: {
  readonly id: string;
  readonly ref?: string | undefined;
  readonly name?: string | undefined;
}): string => name ?? ref ?? id;
const mm = (value: number): string => `${Math.round(value * 10) / 10} mm`;

/** The body of a control under its panel, seen from above. */
const controlShape = ({
  at,
  lengthMm,
  widthMm,
}: Pick<PanelControl, 'at' | 'lengthMm' | 'widthMm'>): Polygon =>
  rectangle(at, { x: 1, y: 0 }, lengthMm, widthMm);

/** A point of a board on its panel: turned by quarters about hole 0, 0 and moved to where that is. */
function ontoPanel({ board }: Panel, { x, y }: PointMm): PointMm {
  if (!board) return { x, y };
  const [dx, dy] = [
    [x, y],
    [-y, x],
    [-x, -y],
    [y, -x],
  ][board.quarters]! as [number, number];
  return { x: board.at.x + dx, y: board.at.y + dy };
}

/** What stands under a panel: the parts of its board, and what was put there by hand. */
export function standingUnder(
  panel: Panel,
  boards: readonly Board[],
  circuit: LayerCircuit,
): readonly Standing[] {
  const board = boards.find((b) => b.id === panel.board?.id);
  const placed = board ? readPlaces(circuit, board).bodies : [];
  return [
    ...placed.map(({ name, stance }): Standing => ({
      name,
      shape: stance.body.map((p) => ontoPanel(panel, p)),
      heightMm: stance.heightMm,
    })),
    ...(panel.obstacles ?? []).map((o): Standing => ({
      name: nameOf(o),
      shape: rectangle(o.at, { x: 1, y: 0 }, o.lengthMm, o.widthMm),
      heightMm: o.heightMm,
    })),
  ];
}

/**
 * Whether a panel with its controls goes over what stands under it: which control meets which part, and by how much; which come
 * nearer than 2 mm over it or 1 mm beside it; controls in one another's way, over the edge and deeper than the gap; what is
 * too tall for the lid, and a board that sticks out beside the panel.
 */
export function checkFit(
  panel: Panel,
  standing: readonly Standing[],
  boards: readonly Board[] = [],
): readonly FitProblem[] {
  return [
    ...panel.controls.flatMap((control, i) => [
      ...edgeOf(panel, control),
      ...tooDeep(panel, control),
      ...panel.controls.slice(i + 1).flatMap((other) => controlsMeet(control, other)),
      ...standing.flatMap((under) => meets(panel, control, under)),
    ]),
    ...standing.flatMap((under) => tooTall(panel, under)),
    ...boardBeside(panel, boards),
  ];
}

/** A control that reaches farther down than there is room, whatever stands there. */
function tooDeep({ gapMm }: Panel, control: PanelControl): FitProblem[] {
  const into = control.depthMm - gapMm;
  return into <= 0
    ? []
    : [
        {
          code: 'deep',
          message: `${nameOf(control)} is ${mm(control.depthMm)} deep and has ${mm(gapMm)}: it goes ${mm(into)} into the board.`,
          controls: [control.id],
          meets: [],
        },
      ];
}

/** What stands higher than the lid lets it, anywhere under the panel. */
function tooTall(panel: Panel, under: Standing): FitProblem[] {
  const lid = rectangle(
    { x: panel.widthMm / 2, y: panel.heightMm / 2 },
    { x: 1, y: 0 },
    panel.widthMm,
    panel.heightMm,
  );
  const over = under.heightMm - panel.gapMm;
  return over <= 0 || depthOfOverlap(lid, under.shape) <= 0
    ? []
    : [
        {
          code: 'tall',
          message: `${under.name} is ${mm(under.heightMm)} high and has ${mm(panel.gapMm)}: it is ${mm(over)} too tall for the lid.`,
          controls: [],
          meets: [under.name],
        },
      ];
}

/** A board that is larger than its panel, or stands askew of it. */
function boardBeside(panel: Panel, boards: readonly Board[]): FitProblem[] {
  const board = boards.find((b) => b.id === panel.board?.id);
  if (!board) return [];
  const [right, down] = [board.columns - 0.5, board.rows - 0.5].map((n) => n * PITCH_MM) as [number, number];
  const left = -PITCH_MM / 2;
  const corners = [left, right].flatMap((x) => [left, down].map((y) => ontoPanel(panel, { x, y })));
  const over = Math.max(
    ...corners.map((p) => Math.max(-p.x, -p.y, p.x - panel.widthMm, p.y - panel.heightMm)),
  );
  return over <= 0
    ? []
    : [
        {
          code: 'beside',
          message: `${board.name ?? 'The board'} sticks ${mm(over)} out beside the panel.`,
          controls: [],
          meets: [board.name ?? board.id],
        },
      ];
}

/** How far two shapes are apart where that is less than the air beside things; null where they overlap or are farther apart. */
function sidewaysGap(control: PanelControl, shape: Polygon): number | null {
  const grown = {
    ...control,
    lengthMm: control.lengthMm + 2 * SIDE_AIR_MM,
    widthMm: control.widthMm + 2 * SIDE_AIR_MM,
  };
  const depth = depthOfOverlap(controlShape(grown), shape);
  return depth > 0 && depth < SIDE_AIR_MM ? SIDE_AIR_MM - depth : null;
}

function edgeOf({ widthMm, heightMm }: Panel, control: PanelControl): FitProblem[] {
  const over = Math.max(
    ...controlShape(control).map((p) => Math.max(-p.x, -p.y, p.x - widthMm, p.y - heightMm)),
  );
  return over <= 0
    ? []
    : [
        {
          code: 'edge',
          message: `${nameOf(control)} reaches ${mm(over)} over the edge of the panel.`,
          controls: [control.id],
          meets: [],
        },
      ];
}

function controlsMeet(a: PanelControl, b: PanelControl): FitProblem[] {
  const depth = depthOfOverlap(controlShape(a), controlShape(b));
  const apart = depth > 0 ? null : sidewaysGap(a, controlShape(b));
  if (apart !== null)
    return [
      {
        code: 'close',
        message: `${nameOf(a)} and ${nameOf(b)} are only ${mm(apart)} apart.`,
        controls: [a.id, b.id],
        meets: [],
      },
    ];
  return depth <= 0
    ? []
    : [
        {
          code: 'controls',
          message: `${nameOf(a)} and ${nameOf(b)} are in one another's way by ${mm(depth)}.`,
          controls: [a.id, b.id],
          meets: [],
        },
      ];
}

function meets({ gapMm }: Panel, control: PanelControl, under: Standing): FitProblem[] {
  const sideways = depthOfOverlap(controlShape(control), under.shape);
  const into = control.depthMm + under.heightMm - gapMm;
  if (sideways <= 0) {
    const apart = into > 0 ? sidewaysGap(control, under.shape) : null;
    return apart === null
      ? []
      : [
          {
            code: 'close',
            message: `${nameOf(control)} goes down only ${mm(apart)} beside ${under.name}.`,
            controls: [control.id],
            meets: [under.name],
          },
        ];
  }
  if (into <= -AIR_MM) return [];
  const about = { controls: [control.id], meets: [under.name] };
  return into > 0
    ? [
        {
          code: 'collision',
          message: `${nameOf(control)} meets ${under.name} under the panel: ${mm(into)} too deep. It goes ${mm(sideways)} aside, or the panel ${mm(into)} higher.`,
          ...about,
        },
      ]
    : [
        {
          code: 'close',
          message: `${nameOf(control)} stands only ${mm(-into)} over ${under.name}.`,
          ...about,
        },
      ];
}

/** Middles of a grid are tried this far apart, mm. */
const GRID_MM = 2.5;

/** Where another control of a size would go without a problem: middles on a grid of 2.5 mm. */
export function freePlaces(
  panel: Panel,
  standing: readonly Standing[],
  size: Pick<PanelControl, 'lengthMm' | 'widthMm' | 'depthMm' | 'holeMm'>,
): readonly PointMm[] {
  const found: PointMm[] = [];
  for (let x = GRID_MM; x < panel.widthMm; x += GRID_MM)
    for (let y = GRID_MM; y < panel.heightMm; y += GRID_MM) {
      const tried: PanelControl = { ...size, id: '', at: { x, y } };
      const isFree =
        edgeOf(panel, tried).length === 0 &&
        tooDeep(panel, tried).length === 0 &&
        panel.controls.every((c) => controlsMeet(tried, c).length === 0) &&
        standing.every((s) => meets(panel, tried, s).length === 0);
      if (isFree) found.push({ x, y });
    }
  return found;
}
