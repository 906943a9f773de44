import { Graph, layout } from '@dagrejs/dagre';
import type { PathData } from '@zemble/contract';
import { useMemo, useRef, useState, type PointerEvent } from 'react';
import { ToneMark } from './marks.tsx';
import styles from './path-drawing.module.css';

/** What the search says of a block: cleared, still suspected, or convicted. */
export type BlockStand = 'cleared' | 'suspected' | 'convicted' | 'untested';

export interface BlockView {
  readonly stand: BlockStand;
  /** Share of the suspicion, 0 to 1. */
  readonly share: number;
}

/** What was last seen at a point. */
export type PointView = 'good' | 'bad';

interface Props {
  readonly path: PathData;
  readonly blocks?: ReadonlyMap<string, BlockView>;
  readonly points?: ReadonlyMap<string, PointView>;
  readonly selectedBlock?: string | null;
  readonly selectedPoint?: string | null;
  readonly onSelectBlock?: (id: string) => void;
  readonly onSelectPoint?: (id: string) => void;
  /** A block was drawn onto another. */
  readonly onLink?: (from: string, to: string) => void;
}

const WIDTH = 158;
const HEIGHT = 34;
const MARGIN = 12;
const POINT_RADIUS = 9;
const STAND_TONES = { cleared: 'in', suspected: 'edge', convicted: 'out', untested: 'unsure' } as const;

interface Placed {
  readonly width: number;
  readonly height: number;
  readonly nodes: ReadonlyMap<string, { x: number; y: number }>;
  readonly edges: readonly {
    readonly key: string;
    readonly carries: string;
    readonly points: readonly { x: number; y: number }[];
    readonly middle: { x: number; y: number };
    readonly from: string;
    readonly to: string;
  }[];
}

/** The signal flows down; what is fed hangs beside it. */
function place(path: PathData): Placed {
  const graph = new Graph({ multigraph: true });
  graph.setGraph({ rankdir: 'TB', nodesep: 22, ranksep: 26, marginx: MARGIN, marginy: MARGIN });
  graph.setDefaultEdgeLabel(() => ({}));
  for (const b of path.blocks) graph.setNode(b.id, { width: WIDTH, height: HEIGHT });
  const known = new Set(path.blocks.map((b) => b.id));
  path.links.forEach((l, i) => {
    if (!known.has(l.from) || !known.has(l.to)) return;
    graph.setEdge(l.from, l.to, { weight: l.carries === 'audio' ? 8 : 1 }, String(i));
  });
  layout(graph);
  const nodes = new Map(path.blocks.map((b) => [b.id, graph.node(b.id) as { x: number; y: number }]));
  const edges = graph.edges().map((e) => {
    const link = path.links[Number(e.name)]!;
    const { points } = graph.edge(e) as { points: { x: number; y: number }[] };
    const middle = points[Math.floor(points.length / 2)]!;
    return { key: e.name ?? '', carries: link.carries, points, middle, from: link.from, to: link.to };
  });
  const { width = 0, height = 0 } = graph.graph() as { width?: number; height?: number };
  return { width, height, nodes, edges };
}

/** The blocks and links of a unit, with where the search stands: by colour, by shape and by word. */
export function PathDrawing(props: Props) {
  const { path, blocks, points, selectedBlock, selectedPoint, onSelectBlock, onSelectPoint, onLink } = props;
  const placed = useMemo(() => place(path), [path]);
  const svg = useRef<SVGSVGElement>(null);
  const [drag, setDrag] = useState<{ from: string; x: number; y: number } | null>(null);
  const toDrawing = (event: PointerEvent) => {
    const box = svg.current!.getBoundingClientRect();
    const scale = placed.width / box.width;
    return { x: (event.clientX - box.left) * scale, y: (event.clientY - box.top) * scale };
  };
  const blockAt = ({ x, y }: { x: number; y: number }) =>
    path.blocks.find((b) => {
      const at = placed.nodes.get(b.id)!;
      return Math.abs(at.x - x) < WIDTH / 2 && Math.abs(at.y - y) < HEIGHT / 2;
    })?.id;
  const testPoints = (path.testPoints ?? []).flatMap((t, i) => {
    const edge = t.link && placed.edges.find((e) => e.from === t.link![0] && e.to === t.link![1]);
    return edge ? [{ id: t.id, name: t.name ?? t.id, at: edge.middle, number: i + 1 }] : [];
  });
  return (
    <svg
      ref={svg}
      className={styles.path}
      viewBox={`0 0 ${placed.width} ${placed.height}`}
      style={{ width: placed.width, aspectRatio: `${placed.width} / ${placed.height}` }}
      role="group"
      aria-label={`Path of ${path.blocks.length} blocks`}
      onPointerMove={(event) => drag && setDrag({ ...drag, ...toDrawing(event) })}
      onPointerUp={(event) => {
        if (!drag) return;
        const to = blockAt(toDrawing(event));
        if (to !== undefined && to !== drag.from) onLink?.(drag.from, to);
        setDrag(null);
      }}
    >
      {placed.edges.map((e) => (
        <path
          key={e.key}
          className={`${styles.linkLine} ${styles[`carries-${e.carries}`]}`}
          d={`M${e.points.map((p) => `${p.x} ${p.y}`).join('L')}`}
        >
          <title>{e.carries}</title>
        </path>
      ))}
      {drag && (
        <path
          className={`${styles.linkLine} ${styles.linkNew}`}
          d={`M${placed.nodes.get(drag.from)!.x} ${placed.nodes.get(drag.from)!.y}L${drag.x} ${drag.y}`}
        />
      )}
      {path.blocks.map((b) => {
        const at = placed.nodes.get(b.id)!;
        const view = blocks?.get(b.id);
        const stand = view?.stand ?? 'untested';
        const name = b.name ?? b.id;
        return (
          <g
            key={b.id}
            className={`${styles.blockNode} ${styles[`stand-${stand}`]}${selectedBlock === b.id ? ` ${styles.blockOn}` : ''}`}
            transform={`translate(${at.x - WIDTH / 2} ${at.y - HEIGHT / 2})`}
            onPointerDown={(event) => {
              if (onLink && event.button === 0) setDrag({ from: b.id, ...toDrawing(event) });
            }}
            onClick={() => onSelectBlock?.(b.id)}
          >
            <rect width={WIDTH} height={HEIGHT} rx="4" />
            {view && view.share > 0.005 && (
              <rect
                className={styles.shareBar}
                x="1"
                y={HEIGHT - 5}
                width={Math.max(2, (WIDTH - 2) * view.share)}
                height="4"
              />
            )}
            <foreignObject width={WIDTH} height={HEIGHT}>
              <div className={styles.blockFace}>
                {view && <ToneMark tone={STAND_TONES[stand]} />}
                <span className={styles.blockName} title={`${name}, ${b.kind ?? 'block'}`}>
                  {name}
                </span>
                {view && <span className={styles.blockWord}>{standWord(view)}</span>}
              </div>
            </foreignObject>
          </g>
        );
      })}
      {testPoints.map((t) => {
        const view = points?.get(t.id);
        return (
          <g
            key={t.id}
            className={`zb-tap${selectedPoint === t.id ? ' zb-tap-on' : ''}${view ? ` zb-tap-${view}` : ''}`}
            transform={`translate(${t.at.x} ${t.at.y})`}
            role="button"
            tabIndex={onSelectPoint ? 0 : undefined}
            aria-label={`Point ${t.number}, ${t.name}${view ? `, ${view}` : ''}`}
            onClick={() => onSelectPoint?.(t.id)}
            onKeyDown={(event) => event.key === 'Enter' && onSelectPoint?.(t.id)}
          >
            <title>{t.name}</title>
            <circle r={POINT_RADIUS} />
            <text textAnchor="middle" dy="3.6">
              {t.number}
            </text>
          </g>
        );
      })}
    </svg>
  );
}

/** The word that goes with the mark: never colour alone. */
export function standWord({ stand, share }: BlockView): string {
  if (stand === 'cleared') return 'cleared';
  if (stand === 'convicted') return 'convicted';
  return `${share >= 0.005 ? Math.max(1, Math.round(share * 100)) : 0} %`;
}
