import { arcDegrees, type Outline } from '@zemble/core';
import styles from './outline-figure.module.css';

interface Props {
  readonly outline: Outline;
  /** What stands at each pin, from pin 1. */
  readonly labels: readonly string[];
  /** Pins that are meant, from 1. */
  readonly meant: ReadonlySet<number>;
}

const STEP = 22;
const WIDE = 360;

/** An outline as hands see it, its pins numbered, each with what it is. */
export function OutlineFigure({ outline, labels, meant }: Props) {
  const { words, seen } = outline;
  const height = heightOf(outline);
  return (
    <figure className={styles.figure}>
      <svg
        viewBox={`0 0 ${WIDE} ${height}`}
        width={WIDE}
        height={height}
        role="img"
        aria-label={`${words}: ${labels.map((label, i) => (outline.isUnnumbered ? label : `${i + 1} ${label}`)).join(', ')}`}
      >
        <Body outline={outline} height={height} />
        {labels.map((label, i) => (
          <Pin
            key={i}
            at={placeOf(outline, i + 1)}
            number={outline.isUnnumbered ? '' : i + 1}
            label={label}
            isMeant={meant.has(i + 1)}
          />
        ))}
      </svg>
      <figcaption className="zb-dim">
        {outline.name}, {seen}
      </figcaption>
    </figure>
  );
}

function heightOf({ pins, shape }: Outline): number {
  switch (shape) {
    case 'dual in line':
    case 'ribbon':
      return (pins / 2) * STEP + 34;
    case 'ring':
    case 'jack':
      return 190;
    case 'single in line':
      return pins * STEP + 14;
    case 'two rows of lugs':
      return 190;
    case 'arc':
      return 130;
    case 'two legs':
    case 'three legs':
    case 'lugs':
      return 118;
  }
}

interface Place {
  readonly x: number;
  readonly y: number;
  /** Which way its label runs. */
  readonly anchor: 'start' | 'middle' | 'end';
  readonly dx: number;
  readonly dy: number;
}

function placeOf({ shape, pins }: Outline, pin: number): Place {
  const middle = WIDE / 2;
  switch (shape) {
    case 'dual in line': {
      const half = pins / 2;
      const isLeft = pin <= half;
      const row = isLeft ? pin - 1 : pins - pin;
      return {
        x: middle + (isLeft ? -34 : 34),
        y: 26 + row * STEP,
        anchor: isLeft ? 'end' : 'start',
        dx: isLeft ? -16 : 16,
        dy: 4,
      };
    }
    case 'ring': {
      // From below, clockwise from a gap at the foot.
      const turn = Math.PI / 2 + ((pin - 0.5) / pins) * 2 * Math.PI;
      const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
      return {
        x: middle + 52 * cos,
        y: 92 + 52 * sin,
        anchor: cos < -0.3 ? 'end' : cos > 0.3 ? 'start' : 'middle',
        dx: 18 * Math.sign(Math.abs(cos) < 0.3 ? 0 : cos),
        dy: Math.abs(cos) < 0.3 ? (sin > 0 ? 22 : -14) : 4,
      };
    }
    case 'single in line':
      return { x: middle - 40, y: 18 + (pin - 1) * STEP, anchor: 'start', dx: 16, dy: 4 };
    case 'two legs':
      return { x: middle + (pin === 1 ? -62 : 62), y: 78, anchor: 'middle', dx: 0, dy: 28 };
    case 'jack': {
      const [column, row] = [pin === 3 ? 0 : pin < 3 ? -1 : 1, [0, 1, 2, 0, 1][pin - 1]!];
      return {
        x: middle + column * 34,
        y: 30 + row * 52,
        anchor: column === 0 ? 'middle' : column < 0 ? 'end' : 'start',
        dx: column * 16,
        dy: column === 0 ? 26 : 4,
      };
    }
    case 'three legs':
    case 'lugs':
      return { x: middle + (pin - 2) * 62, y: 78, anchor: 'middle', dx: 0, dy: 28 };
    case 'two rows of lugs':
      return {
        x: middle + (((pin - 1) % 3) - 1) * 62,
        y: pin <= 3 ? 78 : 138,
        anchor: 'middle',
        dx: 0,
        dy: 28,
      };
    case 'ribbon': {
      const isLeft = pin % 2 === 1;
      return {
        x: middle + (isLeft ? -14 : 14),
        y: 26 + Math.floor((pin - 1) / 2) * STEP,
        anchor: isLeft ? 'end' : 'start',
        dx: isLeft ? -16 : 16,
        dy: 4,
      };
    }
    case 'arc': {
      const angle = (arcDegrees(pin) * Math.PI) / 180;
      const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
      const isMiddle = Math.abs(cos) < 0.3;
      return {
        x: middle + 46 * cos,
        y: 40 + 46 * sin,
        anchor: isMiddle ? 'middle' : cos < 0 ? 'end' : 'start',
        dx: isMiddle ? 0 : 18 * Math.sign(cos),
        dy: isMiddle ? 34 : 4,
      };
    }
  }
}

function Body({ outline: { shape }, height }: { readonly outline: Outline; readonly height: number }) {
  const middle = WIDE / 2;
  switch (shape) {
    case 'dual in line':
      return (
        <>
          <rect x={middle - 34} y={8} width={68} height={height - 20} rx={3} className={styles.body} />
          <path d={`M ${middle - 9} 8 A 9 9 0 0 0 ${middle + 9} 8`} className={styles.body} />
        </>
      );
    case 'ring':
      return (
        <>
          <circle cx={middle} cy={92} r={68} className={styles.body} />
          <path d={`M ${middle - 7} 160 L ${middle} 150 L ${middle + 7} 160`} className={styles.body} />
        </>
      );
    case 'single in line':
      return <rect x={middle - 62} y={6} width={22} height={height - 12} rx={2} className={styles.body} />;
    case 'two legs':
      return (
        <>
          <rect x={middle - 50} y={20} width={100} height={34} rx={8} className={styles.body} />
          <line x1={middle - 34} y1={20} x2={middle - 34} y2={54} className={styles.marked} />
          <path d={`M ${middle - 50} 37 H ${middle - 62} V 70`} className={styles.body} />
          <path d={`M ${middle + 50} 37 H ${middle + 62} V 70`} className={styles.body} />
        </>
      );
    case 'jack':
      return <rect x={middle - 52} y={8} width={104} height={120} rx={6} className={styles.body} />;
    case 'three legs':
      return (
        <>
          <rect x={middle - 84} y={10} width={168} height={44} rx={8} className={styles.body} />
          {[-62, 0, 62].map((x) => (
            <line key={x} x1={middle + x} y1={54} x2={middle + x} y2={72} className={styles.body} />
          ))}
        </>
      );
    case 'two rows of lugs':
      return (
        <>
          <circle cx={middle} cy={32} r={28} className={styles.body} />
          <circle cx={middle} cy={32} r={7} className={styles.body} />
        </>
      );
    case 'ribbon':
      return (
        <>
          <rect x={middle - 30} y={8} width={60} height={height - 20} rx={3} className={styles.body} />
          <line x1={middle - 30} y1={10} x2={middle + 30} y2={10} className={styles.marked} />
        </>
      );
    case 'arc':
      return <circle cx={middle} cy={40} r={64} className={styles.body} />;
    case 'lugs':
      return (
        <>
          <circle cx={middle} cy={32} r={28} className={styles.body} />
          <circle cx={middle} cy={32} r={7} className={styles.body} />
          {[-62, 0, 62].map((x) => (
            <line key={x} x1={middle + x * 0.4} y1={56} x2={middle + x} y2={72} className={styles.body} />
          ))}
        </>
      );
  }
}

function Pin({
  at: { x, y, anchor, dx, dy },
  number,
  label,
  isMeant,
}: {
  readonly at: Place;
  readonly number: number | '';
  readonly label: string;
  readonly isMeant: boolean;
}) {
  return (
    <g className={isMeant ? styles.meant : undefined}>
      <circle cx={x} cy={y} r={9} className={styles.pin} />
      <text x={x} y={y + 4} textAnchor="middle" className={styles.number}>
        {number}
      </text>
      <text x={x + dx} y={y + dy} textAnchor={anchor} className={styles.label}>
        {label}
      </text>
    </g>
  );
}
