import { bodyOf, lookOf, pinoutOf, type LayerPart } from '@zemble/core';
import { BAND_PAINT } from '../../ui/band-paint.ts';
import styles from './build.module.css';

const WIDE = 220;
const HIGH = 84;
const MIDDLE = HIGH / 2;

/** A part as it will look in the hand: bands, code, stripe, notch; which end goes to which net. */
export function PartPicture({ part }: { readonly part: LayerPart }) {
  const look = lookOf(part);
  return (
    <figure className={styles.picture}>
      <svg
        viewBox={`0 0 ${WIDE} ${HIGH}`}
        width={WIDE}
        height={HIGH}
        role="img"
        aria-label={`${part.ref}: ${look.words || 'no mark to go by'}`}
      >
        <Shape part={part} />
      </svg>
      {look.words !== '' && !look.bands && <figcaption className="zb-dim">{look.words}</figcaption>}
    </figure>
  );
}

function Shape({ part }: { readonly part: LayerPart }) {
  const body = bodyOf(part);
  switch (body.mounting) {
    case 'axial':
      return <Axial part={part} />;
    case 'radial':
      return body.isRound ? <Can part={part} /> : <Box part={part} />;
    case 'dual in line':
      return <Dual part={part} />;
    case 'row':
    case 'none':
      return Object.keys(part.pins).length === 3 ? <ThreeLegs part={part} /> : <Box part={part} />;
  }
}

/** The nets of the ends, left and right, in the order of the part's pins. */
const ends = ({ pins }: LayerPart): readonly [string, string] => {
  const nets = Object.entries(pins);
  return [nets[0]?.[1] ?? '', nets[1]?.[1] ?? ''];
};

function Axial({ part }: { readonly part: LayerPart }) {
  const { bands, code, mark } = lookOf(part);
  const [left, right] = ends(part);
  return (
    <>
      <line x1={8} y1={MIDDLE} x2={WIDE - 8} y2={MIDDLE} className={styles.lead} />
      <rect x={62} y={MIDDLE - 15} width={96} height={30} rx={9} className={styles.body} />
      {bands?.map((band, i) => (
        <rect
          key={i}
          x={74 + i * 17 + (i === bands.length - 1 && bands.length > 3 ? 6 : 0)}
          y={MIDDLE - 15}
          width={8}
          height={30}
          fill={BAND_PAINT[band]}
        />
      ))}
      {mark && <rect x={140} y={MIDDLE - 15} width={9} height={30} className={styles.mark} />}
      {code !== undefined && (
        <text x={WIDE / 2} y={MIDDLE + 5} textAnchor="middle" className={styles.print}>
          {code}
        </text>
      )}
      <Net x={8} anchor="start" text={left} />
      <Net x={WIDE - 8} anchor="end" text={mark ? (part.pins[mark.pin] ?? right) : right} />
    </>
  );
}

function Net({
  x,
  anchor,
  text,
}: {
  readonly x: number;
  readonly anchor: 'start' | 'end';
  readonly text: string;
}) {
  return (
    <text x={x} y={HIGH - 8} textAnchor={anchor} className={styles.netName}>
      {text}
    </text>
  );
}

function Can({ part }: { readonly part: LayerPart }) {
  const { mark } = lookOf(part);
  const [plus, minus] = ends(part);
  return (
    <>
      <line x1={96} y1={58} x2={96} y2={HIGH} className={styles.lead} />
      <line x1={124} y1={58} x2={124} y2={HIGH - 6} className={styles.lead} />
      <rect x={80} y={6} width={60} height={54} rx={5} className={styles.body} />
      {mark && <rect x={126} y={6} width={10} height={54} className={styles.mark} />}
      {mark && (
        <text x={131} y={38} textAnchor="middle" className={styles.markText}>
          −
        </text>
      )}
      <Net x={74} anchor="end" text={mark ? `+ ${plus}` : plus} />
      <Net x={146} anchor="start" text={mark ? `− ${minus}` : minus} />
    </>
  );
}

function Box({ part }: { readonly part: LayerPart }) {
  const { code } = lookOf(part);
  const [left, right] = ends(part);
  const isPair = Object.keys(part.pins).length === 2;
  return (
    <>
      {isPair && <line x1={84} y1={56} x2={84} y2={HIGH} className={styles.lead} />}
      {isPair && <line x1={136} y1={56} x2={136} y2={HIGH} className={styles.lead} />}
      <rect x={74} y={14} width={72} height={44} rx={4} className={styles.body} />
      <text x={WIDE / 2} y={42} textAnchor="middle" className={styles.print}>
        {code ?? part.ref}
      </text>
      {isPair && <Net x={78} anchor="end" text={left} />}
      {isPair && <Net x={142} anchor="start" text={right} />}
    </>
  );
}

function ThreeLegs({ part }: { readonly part: LayerPart }) {
  const order = (pinoutOf(part)?.variant.pins ?? Object.keys(part.pins)).slice(0, 3);
  return (
    <>
      <rect x={78} y={4} width={64} height={40} rx={8} className={styles.body} />
      <text x={WIDE / 2} y={29} textAnchor="middle" className={styles.print}>
        {part.ref}
      </text>
      {order.map((pin, i) => (
        <g key={pin}>
          <line x1={90 + i * 20} y1={44} x2={90 + i * 20} y2={60} className={styles.lead} />
          <text x={58 + i * 52} y={76} textAnchor="middle" className={styles.netName}>
            {`${pin} ${part.pins[pin] ?? ''}`}
          </text>
        </g>
      ))}
    </>
  );
}

function Dual({ part }: { readonly part: LayerPart }) {
  const pins = pinoutOf(part)?.outline?.pins ?? 8;
  const half = pins / 2;
  const step = 120 / half;
  const leg = (i: number) => 56 + step * (i + 0.5);
  return (
    <>
      <rect x={50} y={20} width={120} height={44} rx={3} className={styles.body} />
      <path d="M 50 34 A 8 8 0 0 1 50 50" className={styles.lead} />
      <circle cx={60} cy={56} r={3} className={styles.mark} />
      {Array.from({ length: half }, (_, i) => (
        <g key={i}>
          <line x1={leg(i)} y1={64} x2={leg(i)} y2={74} className={styles.lead} />
          <line x1={leg(i)} y1={20} x2={leg(i)} y2={10} className={styles.lead} />
        </g>
      ))}
      <text x={112} y={46} textAnchor="middle" className={styles.print}>
        {part.model ?? part.ref}
      </text>
      <text x={leg(0)} y={HIGH - 1} textAnchor="middle" className={styles.netName}>
        1
      </text>
    </>
  );
}
