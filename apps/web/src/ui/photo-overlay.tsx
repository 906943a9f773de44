import type { Track } from '@zemble/contract';
import styles from './photo-board.module.css';

/** A pad of a part on a photo, in fractions of it. */
export interface Pad {
  readonly target: string;
  readonly ref: string;
  readonly net: string;
  readonly x: number;
  readonly y: number;
  /** It was marked on another photo, with which this one is lined up. */
  readonly isOther: boolean;
  readonly isOn: boolean;
}

/** A part on a photo, by its pads. */
export interface PartShape {
  readonly ref: string;
  readonly places: readonly { readonly x: number; readonly y: number }[];
  readonly isOn: boolean;
}

/** The middle of a part's pads. */
const middle = (places: PartShape['places']) => ({
  x: places.reduce((sum, p) => sum + p.x, 0) / places.length,
  y: places.reduce((sum, p) => sum + p.y, 0) / places.length,
});

const lineOf = (places: readonly { readonly x: number; readonly y: number }[]): string =>
  places.map(({ x, y }) => `${x},${y}`).join(' ');

/** Bodies and tracks over a photo, drawn in its fractions. */
export function PhotoLines({
  shapes,
  tracks,
  drawn,
}: {
  readonly shapes: readonly PartShape[];
  readonly tracks: readonly Track[];
  /** The track that is being drawn. */
  readonly drawn: readonly { readonly x: number; readonly y: number }[];
}) {
  return (
    <svg className={styles.lines} viewBox="0 0 1 1" preserveAspectRatio="none" aria-hidden>
      {tracks.map(({ places }, i) => (
        <polyline key={i} className={styles.track} points={lineOf(places)} />
      ))}
      {drawn.length > 0 && <polyline className={styles.drawn} points={lineOf(drawn)} />}
      {shapes.map(({ ref, places, isOn }) => (
        <polygon key={ref} className={isOn ? styles.bodyOn : styles.body} points={lineOf(places)} />
      ))}
    </svg>
  );
}

/** Designators in the middle of the parts' bodies. */
export function PartNames({ shapes }: { readonly shapes: readonly PartShape[] }) {
  return shapes.map(({ ref, places, isOn }) => {
    const { x, y } = middle(places);
    return (
      <span
        key={ref}
        className={`${styles.partName}${isOn ? ` ${styles.partNameOn}` : ''}`}
        style={{ left: `${x * 100}%`, top: `${y * 100}%` }}
      >
        {ref}
      </span>
    );
  });
}

/** How many times larger the loupe shows what is under the finger. */
const LOUPE = 3;
const LOUPE_PIXELS = 120;

/** A round piece of the picture around a place, larger, above the finger that hides it. */
export function Loupe({
  src,
  place,
  width,
  height,
}: {
  readonly src: string;
  readonly place: { readonly x: number; readonly y: number };
  /** Of the picture as it is shown, in pixels. */
  readonly width: number;
  readonly height: number;
}) {
  const [w, h] = [width * LOUPE, height * LOUPE];
  return (
    <span
      className={styles.loupe}
      aria-hidden
      style={{
        left: `${place.x * 100}%`,
        top: `${place.y * 100}%`,
        width: LOUPE_PIXELS,
        height: LOUPE_PIXELS,
        backgroundImage: `url("${src}")`,
        backgroundSize: `${w}px ${h}px`,
        backgroundPosition: `${LOUPE_PIXELS / 2 - place.x * w}px ${LOUPE_PIXELS / 2 - place.y * h}px`,
      }}
    />
  );
}
