import { WIRE_COLOURS, writeEnd, type ReadWire } from '@zemble/core';
import type { PointerEvent } from 'react';
import { paintsOf } from './wire-paint.ts';
import type { WirePath, WirePlace } from './wiring-plan.ts';
import styles from './wiring.module.css';

const LUG_RADIUS = 6;
const TOUCH_RADIUS = 14;

interface WireLineProps {
  readonly read: ReadWire;
  readonly path: WirePath;
  readonly look: 'chosen' | 'lit' | 'edge';
  readonly onChoose: () => void;
}

/** A wire in its colour, and in the colour of its stripe. */
export function WireLine({ read, path: { d }, look, onChoose }: WireLineProps) {
  const [outer, inner] = paintsOf(read.wire.colour);
  return (
    <g onClick={onChoose} className={styles.wire}>
      <path d={d} className={styles[look]} />
      <path d={d} stroke={outer} className={styles.core} />
      {inner !== undefined && <path d={d} stroke={inner} className={styles.stripe} />}
    </g>
  );
}

interface PlaceProps {
  readonly place: WirePlace;
  readonly isFrom: boolean;
  readonly isGoal: boolean;
  readonly isEnd: boolean;
  readonly onPress: (event: PointerEvent, place: WirePlace) => void;
  readonly onTap: (place: WirePlace) => void;
}

/** A lug or a place of the board, for a finger, a mouse or the keyboard. */
export function Place({ place, isFrom, isGoal, isEnd, onPress, onTap }: PlaceProps) {
  const { spots, label, isLug } = place;
  const look = isFrom ? styles.lugFrom : isGoal || isEnd ? styles.lugGoal : styles.lug;
  const [first, last] = [spots[0]!, spots.at(-1)!];
  return (
    <g
      role="button"
      tabIndex={0}
      aria-label={`${writeEnd(place.end)}${place.net === undefined ? '' : `, net ${place.net}`}`}
      aria-pressed={isFrom}
      className={styles.place}
      onPointerDown={(event) => onPress(event, place)}
      onKeyDown={(event) => {
        if (event.key !== 'Enter' && event.key !== ' ') return;
        event.preventDefault();
        onTap(place);
      }}
    >
      {spots.map((spot) => (
        <g key={spot.x}>
          <circle cx={spot.x} cy={spot.y} r={TOUCH_RADIUS} className={styles.touch} />
          <circle cx={spot.x} cy={spot.y} r={LUG_RADIUS} className={look} />
        </g>
      ))}
      <text
        x={(first.x + last.x) / 2}
        y={isLug ? first.y + 17 : first.y + 4}
        textAnchor="middle"
        className={styles.lugName}
      >
        {label}
      </text>
    </g>
  );
}

/** The colour of the chosen wire, or of the next; none is the one that cannot be mistaken for another. */
export function Palette({
  colour,
  onPaint,
}: {
  readonly colour: string | null;
  readonly onPaint: (colour: string | null) => void;
}) {
  return (
    <span className={styles.palette} role="group" aria-label="Colour of the wire">
      <button
        className="zb-link"
        aria-pressed={colour === null}
        onClick={() => onPaint(null)}
        title="The colour of its net, or one that is not mistaken for another there"
      >
        by itself
      </button>
      {WIRE_COLOURS.map((name) => (
        <button
          key={name}
          className={styles.paint}
          style={{ background: paintsOf(name)[0] }}
          aria-label={name}
          title={name}
          aria-pressed={colour?.toLowerCase() === name}
          onClick={() => onPaint(name)}
        />
      ))}
    </span>
  );
}
