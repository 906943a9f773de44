import type { ReactNode, SVGProps } from 'react';
import styles from './board.module.css';
import { Ruler } from './ruler.tsx';
import { inTiles, type Box, type Tile } from './tiles.ts';

/** Length of the arms of a mark, mm. */
const MARK_MM = 4;

interface TrueSizeProps {
  /** The drawing in its own units. */
  readonly box: Box;
  /** Millimetres of one of its units. */
  readonly mmAUnit: number;
  readonly label: string;
  readonly children: ReactNode;
  readonly look?: Pick<SVGProps<SVGSVGElement>, 'fill' | 'stroke' | 'strokeWidth'>;
}

/**
 * A drawing on paper at its own size: on one sheet where A4 and letter both hold it, otherwise in tiles, a sheet each, with marks
 * at which they are joined and a ruler on every one.
 */
export function TrueSize({ box, mmAUnit, label, children, look }: TrueSizeProps) {
  const tiles = inTiles(box, mmAUnit);
  if (tiles.length === 1)
    return (
      <Piece box={box} mmAUnit={mmAUnit} label={label} {...(look ? { look } : {})}>
        {children}
      </Piece>
    );
  const [columns, rows] = [
    1 + Math.max(...tiles.map((t) => t.column)),
    1 + Math.max(...tiles.map((t) => t.row)),
  ];
  return (
    <>
      <p>
        Larger than a sheet of paper: {columns} by {rows} sheets. Cut each along its dashed lines and join
        them at the crosses of the same letter.
      </p>
      {tiles.map((tile) => (
        <section key={tile.name} className={styles.tile} aria-label={`Sheet ${tile.name}`}>
          <p>
            Sheet {tile.name}: row {tile.row + 1} of {rows}, column {tile.column + 1} of {columns}
          </p>
          <Piece
            box={tile.box}
            mmAUnit={mmAUnit}
            label={`${label}, sheet ${tile.name}`}
            {...(look ? { look } : {})}
          >
            {children}
            <JoinMarks tile={tile} mmAUnit={mmAUnit} />
          </Piece>
          <Ruler />
        </section>
      ))}
    </>
  );
}

function Piece({ box, mmAUnit, label, children, look }: TrueSizeProps) {
  return (
    <svg
      viewBox={`${box.x} ${box.y} ${box.width} ${box.height}`}
      width={`${box.width * mmAUnit}mm`}
      height={`${box.height * mmAUnit}mm`}
      role="img"
      aria-label={label}
      {...look}
    >
      {children}
    </svg>
  );
}

/** Dashed lines along which a sheet is cut, and a cross with its letter at both ends of each. */
function JoinMarks({ tile, mmAUnit }: { readonly tile: Tile; readonly mmAUnit: number }) {
  const arm = MARK_MM / mmAUnit / 2;
  const line = 0.2 / mmAUnit;
  return (
    <g fill="none" stroke="currentColor" strokeWidth={line}>
      {tile.joins.map(({ from, to, names }) => (
        <g key={names.join()}>
          <path
            d={`M ${from.x} ${from.y} L ${to.x} ${to.y}`}
            strokeDasharray={`${2 / mmAUnit} ${1.5 / mmAUnit}`}
          />
          {[from, to].map((at, i) => (
            <g key={names[i]}>
              <path d={`M ${at.x - arm} ${at.y} h ${2 * arm} M ${at.x} ${at.y - arm} v ${2 * arm}`} />
              <text
                x={at.x + arm / 3}
                y={at.y + (at.y - tile.box.y > arm ? -1 : 5) * (arm / 3)}
                fontSize={3 / mmAUnit}
                stroke="none"
                fill="currentColor"
              >
                {names[i]}
              </text>
            </g>
          ))}
        </g>
      ))}
    </g>
  );
}
