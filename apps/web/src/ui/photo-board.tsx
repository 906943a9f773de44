import type { Damage, PhotoResource } from '@zemble/contract';
import { Button } from 'antd';
import { useRef, useState, type MouseEvent, type PointerEvent, type ReactNode } from 'react';
import { TransformComponent, TransformWrapper } from 'react-zoom-pan-pinch';
import type { PointView } from './path-drawing.tsx';
import { Loupe, PartNames, PhotoLines, type Pad, type PartShape } from './photo-overlay.tsx';
import styles from './photo-board.module.css';

interface Props {
  readonly photo: PhotoResource;
  readonly src: string;
  /** Number printed on a point, by what it stands for. */
  readonly numberOf: (target: string) => number | string;
  readonly nameOf: (target: string) => string;
  readonly points?: ReadonlyMap<string, PointView>;
  /** Short text beside a point, with its tone. */
  readonly labels?: ReadonlyMap<string, { readonly text: string; readonly tone: string | null }>;
  /** Damage that was seen, with its place. */
  readonly damage?: readonly Damage[];
  /** Pads of the circuit's parts, and the parts by them. */
  readonly pads?: readonly Pad[];
  readonly shapes?: readonly PartShape[];
  /** The track that is being drawn. */
  readonly drawn?: readonly { readonly x: number; readonly y: number }[];
  readonly onSelectPad?: (pad: Pad) => void;
  readonly selected: string | null;
  readonly onSelect: (target: string) => void;
  /** A place on the picture was chosen, in fractions of it; absent when nothing is being placed. */
  readonly onPlace?: ((x: number, y: number) => void) | undefined;
  /** Further buttons beside those that zoom. */
  readonly tools?: ReactNode;
}

/** A photo of a board: zoomed by wheel or two fingers, moved by dragging, with its numbered points. */
export function PhotoBoard(props: Props) {
  const {
    photo,
    src,
    numberOf,
    nameOf,
    points,
    labels,
    damage = [],
    pads = [],
    shapes = [],
    drawn = [],
    onSelectPad,
    selected,
    onSelect,
    onPlace,
    tools,
  } = props;
  const picture = useRef<HTMLDivElement>(null);
  const [under, setUnder] = useState<{ x: number; y: number; width: number; height: number } | null>(null);
  const placeOf = ({ clientX, clientY }: MouseEvent | PointerEvent) => {
    const box = picture.current!.getBoundingClientRect();
    const [x, y] = [(clientX - box.left) / box.width, (clientY - box.top) / box.height];
    return x >= 0 && x <= 1 && y >= 0 && y <= 1 ? { x, y } : undefined;
  };
  const place = (event: MouseEvent) => {
    const at = onPlace && placeOf(event);
    if (at) onPlace(at.x, at.y);
  };
  // The loupe is drawn inside the picture, which is zoomed as a whole.
  const look = (event: PointerEvent) => {
    const at = onPlace && placeOf(event);
    const { offsetWidth: width, offsetHeight: height } = picture.current!;
    setUnder(at ? { ...at, width, height } : null);
  };
  const plain = photo.points.filter((p) => !pads.some((pad) => pad.target === p.target));
  return (
    <TransformWrapper minScale={1} maxScale={8} wheel={{ step: 0.2 }} doubleClick={{ disabled: true }}>
      {({ zoomIn, zoomOut, resetTransform }) => (
        <div className={styles.photo}>
          <div className={styles.photoTools}>
            <Button size="small" onClick={() => zoomIn()}>
              Closer
            </Button>
            <Button size="small" onClick={() => zoomOut()}>
              Farther
            </Button>
            <Button size="small" onClick={() => resetTransform()}>
              Whole board
            </Button>
            {tools}
          </div>
          <TransformComponent
            wrapperClass={styles.photoWindow ?? ''}
            contentClass={styles.photoContent ?? ''}
          >
            <div
              ref={picture}
              className={`${styles.photoPicture}${onPlace ? ` ${styles.placing}` : ''}`}
              style={{ aspectRatio: `${photo.width} / ${photo.height}` }}
              onClick={place}
              onPointerMove={onPlace && look}
              onPointerLeave={() => setUnder(null)}
            >
              <img src={src} alt={`Photo: ${photo.name}`} draggable={false} />
              <PhotoLines shapes={shapes} tracks={photo.overlay.tracks ?? []} drawn={drawn} />
              {plain.map((p) => {
                const label = labels?.get(p.target);
                return (
                  label && (
                    <span
                      key={`label ${p.target}`}
                      className={`${styles.photoVolt}${label.tone ? ` ${styles[`photo-volt-${label.tone}`]}` : ''}`}
                      style={{ left: `${p.x * 100}%`, top: `${p.y * 100}%` }}
                    >
                      {label.text}
                    </span>
                  )
                );
              })}
              {damage.map(
                ({ at, defect, target, x, y }) =>
                  x !== undefined &&
                  y !== undefined && (
                    <span
                      key={at}
                      className={styles.photoDamage}
                      style={{ left: `${x * 100}%`, top: `${y * 100}%` }}
                      title={target === undefined ? defect : `${defect}, at ${nameOf(target)}`}
                    >
                      {defect}
                    </span>
                  ),
              )}
              <PartNames shapes={shapes} />
              {pads.map((pad) => (
                <button
                  key={pad.target}
                  className={`${styles.pad}${pad.isOn ? ` ${styles.padOn}` : ''}${pad.isOther ? ` ${styles.padOther}` : ''}`}
                  style={{ left: `${pad.x * 100}%`, top: `${pad.y * 100}%` }}
                  title={`${pad.target}, net ${pad.net}`}
                  aria-label={`Pad ${pad.target}`}
                  // While a place is chosen, a tap on a pad is a tap on its place.
                  onClick={(event) => {
                    if (onPlace) return;
                    event.stopPropagation();
                    onSelectPad?.(pad);
                  }}
                />
              ))}
              {under && onPlace && (
                <Loupe src={src} place={under} width={under.width} height={under.height} />
              )}
              {plain.map((p) => {
                const view = points?.get(p.target);
                return (
                  <button
                    key={p.target}
                    className={`${styles.photoPoint}${p.target === selected ? ' zb-tap-on' : ''}${view ? ` zb-tap-${view}` : ''}`}
                    style={{ left: `${p.x * 100}%`, top: `${p.y * 100}%` }}
                    onClick={(event) => {
                      event.stopPropagation();
                      onSelect(p.target);
                    }}
                    title={nameOf(p.target)}
                    aria-label={`Point ${numberOf(p.target)}, ${nameOf(p.target)}`}
                  >
                    {numberOf(p.target)}
                  </button>
                );
              })}
            </div>
          </TransformComponent>
        </div>
      )}
    </TransformWrapper>
  );
}
