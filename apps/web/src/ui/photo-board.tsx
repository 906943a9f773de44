import type { Damage, PhotoResource } from '@halfsplit/contract';
import { Button } from 'antd';
import { useRef, type MouseEvent, type ReactNode } from 'react';
import { TransformComponent, TransformWrapper } from 'react-zoom-pan-pinch';
import type { PointView } from './path-drawing.tsx';
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
    selected,
    onSelect,
    onPlace,
    tools,
  } = props;
  const picture = useRef<HTMLDivElement>(null);
  const place = (event: MouseEvent) => {
    if (!onPlace || !picture.current) return;
    const box = picture.current.getBoundingClientRect();
    const [x, y] = [(event.clientX - box.left) / box.width, (event.clientY - box.top) / box.height];
    if (x >= 0 && x <= 1 && y >= 0 && y <= 1) onPlace(x, y);
  };
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
            >
              <img src={src} alt={`Photo: ${photo.name}`} draggable={false} />
              {photo.points.map((p) => {
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
              {photo.points.map((p) => {
                const view = points?.get(p.target);
                return (
                  <button
                    key={p.target}
                    className={`${styles.photoPoint}${p.target === selected ? ' hs-tap-on' : ''}${view ? ` hs-tap-${view}` : ''}`}
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
