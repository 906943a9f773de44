import { blockPins, type BlockPins, type Part } from '@zemble/core';
import type { ReactNode } from 'react';
import styles from './schematic.module.css';

/** Symbols after IEC 60617 in the template's own frame (drawing units, standing, pins as in core/draw). */
const leads = (top: number, bottom: number) => <path d={`M0 -2V${top}M0 ${bottom}V2`} />;

const RESISTOR = (
  <>
    {leads(-1.3, 1.3)}
    <rect x="-0.55" y="-1.3" width="1.1" height="2.6" className={styles.body} />
  </>
);

const junction = (extra: ReactNode) => (
  <>
    {leads(-0.8, 0.8)}
    <path d="M-0.8 -0.8H0.8L0 0.8Z" className={styles.solid} />
    <path d="M-0.8 0.8H0.8" />
    {extra}
  </>
);

const contact = (closed: boolean) => (
  <>
    {leads(-1, 1)}
    <circle cx="0" cy="-1" r="0.16" />
    <circle cx="0" cy="1" r="0.16" />
    <path d={closed ? 'M0 -1V1' : 'M0 1L-0.9 -0.8'} />
  </>
);

function bjt(isPnp: boolean): ReactNode {
  return (
    <>
      <path d="M-2 0H-0.5M-0.5 -1.1V1.1" />
      <path d="M-0.5 -1.1V1.1" strokeWidth="0.24" />
      <path d="M-0.5 -0.5L1 -1.5V-2M-0.5 0.5L1 1.5V2" />
      {isPnp ? (
        <path d="M-0.28 -0.65L0.5 -0.72L0.12 -1.32Z" className={styles.solid} />
      ) : (
        <path d="M0.95 1.47L0.2 1.38L0.56 0.82Z" className={styles.solid} />
      )}
    </>
  );
}

const fet = (isInsulated: boolean, isP: boolean) => (
  <>
    <path d={isInsulated ? 'M-2 0H-0.8M-0.8 -1V1' : 'M-2 0H-0.3'} />
    <path d="M-0.3 -1.2V1.2M-0.3 -0.9H1V-2M-0.3 0.9H1V2" />
    <path d={isP ? 'M-1 0L-0.4 -0.3V0.3Z' : 'M-0.35 0L-0.95 -0.3V0.3Z'} className={styles.solid} />
  </>
);

const valve = (hasScreen: boolean) => (
  <>
    <circle cx="0.4" cy="0" r="1.75" />
    <path d="M1 -2V-1.1M0 -1.1H1.6M1 2V1.1M1 1.1Q1 0.8 0.4 0.8H0" />
    <path d={hasScreen ? 'M-2 1H-1.4L-0.8 0.35M-2 -1H-1.4L-0.8 -0.4' : 'M-2 0H-0.8'} />
    <path d="M-0.8 0.3H1.6" strokeDasharray="0.35 0.25" />
    {hasScreen && <path d="M-0.8 -0.4H1.6" strokeDasharray="0.35 0.25" />}
  </>
);

const plates = (isPolarised: boolean) => (
  <>
    {leads(-0.3, 0.3)}
    <path d="M-1 -0.3H1" />
    {isPolarised ? <path d="M-1 0.3H1V0.62H-1Z" className={styles.solid} /> : <path d="M-1 0.3H1" />}
    {isPolarised && <path d="M-0.95 -1.15H-0.35M-0.65 -1.45V-0.85" strokeWidth="0.12" />}
  </>
);

function source(part: Part): ReactNode {
  if (part.kind === 'supply') {
    return (
      <>
        {leads(-0.35, 0.35)}
        <path d="M-1 -0.35H1" />
        <path d="M-0.5 0.35H0.5" strokeWidth="0.3" />
        <path d="M-0.95 -1.1H-0.35M-0.65 -1.4V-0.8" strokeWidth="0.12" />
      </>
    );
  }
  return (
    <>
      {leads(-1, 1)}
      <circle cx="0" cy="0" r="1" className={styles.body} />
      <path d="M-0.6 0Q-0.3 -0.75 0 0T0.6 0" />
    </>
  );
}

function block({ left, right }: BlockPins): ReactNode {
  const rows = Math.max(left.length, right.length, 1);
  const top = -(rows - 1);
  const names = (side: readonly string[], x: number, anchor: 'start' | 'end') =>
    side.map((name, i) => (
      <text key={name} x={x} y={top + 2 * i + 0.35} textAnchor={anchor} className={styles.pinName}>
        {name}
      </text>
    ));
  return (
    <>
      <rect x="-4" y={top - 1} width="8" height={rows * 2} className={styles.body} />
      {names(left, -3.6, 'start')}
      {names(right, 3.6, 'end')}
    </>
  );
}

/** A lever from the common contact to one of two, or to neither. */
function changeover(position: 'a' | 'b' | 'open'): ReactNode {
  const lever = { a: 'M-1 0L1 -1', b: 'M-1 0L1 1', open: 'M-1 0H0.8' };
  return (
    <>
      <path d="M-2 0H-1M1 -1H2M1 1H2" />
      <circle cx="-1" cy="0" r="0.16" />
      <circle cx="1" cy="-1" r="0.16" />
      <circle cx="1" cy="1" r="0.16" />
      <path d={lever[position]} />
    </>
  );
}

const REGULATOR = (
  <>
    <path d="M0 1V2" />
    <rect x="-4" y="-1" width="8" height="2" className={styles.body} />
    <text x="-3.6" y="0.35" textAnchor="start" className={styles.pinName}>
      in
    </text>
    <text x="3.6" y="0.35" textAnchor="end" className={styles.pinName}>
      out
    </text>
  </>
);

/** The lines of a part's symbol. */
export function symbolOf(part: Part): ReactNode {
  const rectangle = blockPins(part);
  switch (part.kind) {
    case 'resistor':
      return RESISTOR;
    case 'potentiometer':
      return (
        <>
          {RESISTOR}
          <path d="M2 0H0.6" />
          <path d="M0.6 0L1.2 -0.32V0.32Z" className={styles.solid} />
        </>
      );
    case 'capacitor':
      return plates(part.polarised === true);
    case 'inductor':
      return (
        <path d="M0 -2V-1.6A0.4 0.4 0 0 1 0 -0.8A0.4 0.4 0 0 1 0 0A0.4 0.4 0 0 1 0 0.8A0.4 0.4 0 0 1 0 1.6V2" />
      );
    case 'transformer':
      return (
        <>
          <path d="M-2 -2H-0.7V-1.6A0.4 0.4 0 0 1 -0.7 -0.8A0.4 0.4 0 0 1 -0.7 0A0.4 0.4 0 0 1 -0.7 0.8A0.4 0.4 0 0 1 -0.7 1.6V2H-2" />
          <path d="M2 -2H0.7V-1.6A0.4 0.4 0 0 0 0.7 -0.8A0.4 0.4 0 0 0 0.7 0A0.4 0.4 0 0 0 0.7 0.8A0.4 0.4 0 0 0 0.7 1.6V2H2" />
          <path d="M0 -1.7V1.7" />
        </>
      );
    case 'switch':
      return contact(part.closed !== false);
    case 'jumper':
      return <path d="M0 -2V-1M0 1V2M0 -1A1 1 0 0 1 0 1" />;
    case 'fuse':
      return (
        <>
          <rect x="-0.5" y="-1.2" width="1" height="2.4" className={styles.body} />
          <path d="M0 -2V2" />
        </>
      );
    case 'load':
      return (
        <>
          {RESISTOR}
          <path d="M-0.25 -0.4H0.25L-0.25 0.4H0.25" strokeWidth="0.1" />
        </>
      );
    case 'speaker':
    case 'headphone':
      return (
        <>
          {leads(-0.7, 0.7)}
          <rect x="-0.8" y="-0.7" width="0.7" height="1.4" className={styles.body} />
          <path d="M-0.1 -0.7L0.8 -1.5V1.5L-0.1 0.7" />
          {part.kind === 'headphone' && <path d="M-0.8 -1.2A1.6 1.6 0 0 1 0.6 -1.7" />}
        </>
      );
    case 'diode':
      return junction(null);
    case 'zener':
      return junction(<path d="M-0.8 0.8V1.15M0.8 0.8V0.45" />);
    case 'led':
      return junction(<path d="M-1 -0.3L-1.7 -1M-1.7 -1L-1.65 -0.6M-1.7 -1L-1.3 -0.95" strokeWidth="0.12" />);
    case 'bjt':
      return bjt(part.polarity === 'pnp');
    case 'jfet':
      return fet(false, part.polarity === 'p');
    case 'mosfet':
      return fet(true, part.polarity === 'p');
    case 'triode':
      return valve(false);
    case 'pentode':
      return valve(true);
    case 'opamp':
      return (
        <>
          <path d="M-3 -1H-2M-3 1H-2M2 0H3" />
          <path d="M-2 -2V2L2 0Z" className={styles.body} />
          <path d="M-1.6 -1H-1M-1.6 1H-1M-1.3 0.7V1.3" strokeWidth="0.12" />
          {part.pins.vplus !== undefined && <path d="M0 -2V-1" />}
          {part.pins.vminus !== undefined && <path d="M0 2V1" />}
        </>
      );
    case 'supply':
    case 'signal':
      return source(part);
    case 'capsule':
      return (
        <>
          {leads(-1, 1)}
          <circle cx="0" cy="0" r="1" className={styles.body} />
          <path d="M-1 -1V1" />
        </>
      );
    case 'regulator':
      return REGULATOR;
    case 'changeover':
      return changeover(part.position ?? 'a');
    case 'timer555':
    case 'relay':
    case 'jack':
    case 'clock':
    case 'box':
      return rectangle && block(rectangle);
  }
}
