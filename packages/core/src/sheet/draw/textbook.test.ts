import { describe, expect, it } from 'vitest';
import { circuitOf } from '../../testing/circuits.ts';
import { faults, wiringFaults } from '../../testing/drawing.ts';
import { layoutCircuit, type Drawing } from './index.ts';

/*
 * Circuits as textbooks of electronics draw them (common practice): signal from left to right, supplies at the top, ground at the
 * bottom, what divides a supply standing, what couples lying, feedback parallel to its stage.
 */
interface Textbook {
  readonly name: string;
  readonly lines: string;
  /** Parts from left to right. */
  readonly flow: readonly string[];
  /** Parts from top to bottom, each list for itself. */
  readonly stacked?: readonly (readonly string[])[];
  /** Parts whose ends lie beside each other. */
  readonly lying?: readonly string[];
  /** Parts one of whose ends is over the other. */
  readonly standing?: readonly string[];
  /** Parts on one row. */
  readonly rows?: readonly (readonly string[])[];
}

const SINGLE = 'V1 12V vcc 0\nG1 10mV in 0\n';
const DUAL = 'V1 15V vp 0\nV2 15V 0 vm\nG1 10mV in 0\n';
const OPAMP = 'vplus=vp vminus=vm';

const TEXTBOOK: readonly Textbook[] = [
  {
    name: 'RC low-pass',
    lines: 'G1 1V in 0\nR1 1k in out\nC1 100n out 0\nR2 100k out 0',
    flow: ['G1', 'R1', 'C1'],
    lying: ['R1'],
    standing: ['C1', 'R2'],
  },
  {
    name: 'RC high-pass',
    lines: 'G1 1V in 0\nC1 100n in out\nR1 10k out 0',
    flow: ['G1', 'C1', 'R1'],
    lying: ['C1'],
    standing: ['R1'],
  },
  {
    name: 'voltage divider',
    lines: 'V1 12V vcc 0\nR1 10k vcc m\nR2 10k m 0\nC1 10u m 0',
    flow: ['R1', 'C1'],
    stacked: [['R1', 'R2']],
    standing: ['R1', 'R2', 'C1'],
  },
  {
    name: 'common emitter with bypass',
    lines: `${SINGLE}C1 1u in b\nR1 100k vcc b\nR2 22k b 0\nQ1 2N3904 c b e\nR3 4k7 vcc c\nR4 1k e 0\nC2 100u e 0\nC3 1u c out\nR5 100k out 0`,
    flow: ['G1', 'C1', 'Q1', 'C3', 'R5'],
    stacked: [
      ['R1', 'R2'],
      ['R3', 'Q1', 'R4'],
    ],
    lying: ['C1', 'C3'],
    standing: ['R1', 'R2', 'R3', 'R4', 'C2'],
  },
  {
    name: 'emitter follower',
    lines: `${SINGLE}C1 1u in b\nR1 100k vcc b\nR2 100k b 0\nQ1 2N3904 vcc b e\nR3 2k2 e 0\nC2 10u e out\nR4 10k out 0`,
    flow: ['G1', 'C1', 'Q1', 'C2', 'R4'],
    stacked: [
      ['R1', 'R2'],
      ['Q1', 'R3'],
    ],
    lying: ['C1', 'C2'],
  },
  {
    name: 'source follower',
    lines: `${SINGLE}C1 10n in g\nR1 1M g 0\nQ1 J201 d=vcc g=g s=s\nR2 4k7 s 0\nC2 1u s out\nR3 100k out 0`,
    flow: ['G1', 'C1', 'Q1', 'C2', 'R3'],
    stacked: [['Q1', 'R2']],
    standing: ['R1', 'R2', 'R3'],
  },
  {
    name: 'common source',
    lines: `${SINGLE}C1 10n in g\nR1 1M g 0\nQ1 J201 d=d g=g s=s\nR2 10k vcc d\nR3 1k s 0\nC2 47u s 0\nC3 1u d out\nR4 100k out 0`,
    flow: ['G1', 'C1', 'Q1', 'C3', 'R4'],
    stacked: [['R2', 'Q1', 'R3']],
    lying: ['C1', 'C3'],
  },
  {
    name: 'triode stage',
    lines:
      'V1 250V vcc 0\nG1 100mV in 0\nC1 22n in g\nR1 1M g 0\nV2 12AX7 a=a g=g k=k\nR2 100k vcc a\nR3 1k5 k 0\nC2 22u k 0\nC3 22n a out\nR4 1M out 0',
    flow: ['G1', 'C1', 'V2', 'C3', 'R4'],
    stacked: [['R2', 'V2', 'R3']],
    lying: ['C1', 'C3'],
    standing: ['R1', 'R2', 'R3', 'C2'],
  },
  {
    name: 'cathode follower',
    lines:
      'V1 250V vcc 0\nG1 1V in 0\nC1 22n in g\nR1 1M g 0\nV2 12AU7 a=vcc g=g k=k\nR2 22k k 0\nC2 1u k out\nR3 100k out 0',
    flow: ['G1', 'C1', 'V2', 'C2', 'R3'],
    stacked: [['V2', 'R2']],
  },
  {
    name: 'inverting amplifier',
    lines: `${DUAL}R1 10k in m\nR2 100k m out\nU1 TL071 plus=0 minus=m out=out ${OPAMP}\nR3 10k out 0`,
    flow: ['G1', 'R1', 'U1', 'R3'],
    lying: ['R1', 'R2'],
  },
  {
    name: 'non-inverting amplifier',
    lines: `${DUAL}R4 100k in 0\nR1 1k m 0\nR2 100k m out\nU1 TL071 plus=in minus=m out=out ${OPAMP}\nR3 10k out 0`,
    flow: ['G1', 'U1', 'R3'],
    lying: ['R2'],
    standing: ['R1', 'R4'],
  },
  {
    name: 'unity follower',
    lines: `${DUAL}R1 1M in 0\nU1 TL071 plus=in minus=out out=out ${OPAMP}\nR2 10k out 0`,
    flow: ['G1', 'R1', 'U1', 'R2'],
    standing: ['R1', 'R2'],
  },
  {
    name: 'integrator',
    lines: `${DUAL}R1 10k in m\nC1 10n m out\nR2 1M m out\nU1 TL071 plus=0 minus=m out=out ${OPAMP}\nR3 10k out 0`,
    flow: ['G1', 'R1', 'U1', 'R3'],
    lying: ['R1', 'C1', 'R2'],
  },
  {
    name: 'summing amplifier',
    lines: `${DUAL}G2 10mV in2 0\nR1 10k in m\nR4 10k in2 m\nR2 10k m out\nU1 TL071 plus=0 minus=m out=out ${OPAMP}\nR3 10k out 0`,
    flow: ['G1', 'R1', 'U1', 'R3'],
    stacked: [['R1', 'R4']],
    lying: ['R1', 'R4', 'R2'],
  },
  {
    name: 'low-pass of second order',
    lines: `${DUAL}R1 10k in a\nR2 10k a b\nC1 10n a out\nC2 10n b 0\nU1 TL071 plus=b minus=out out=out ${OPAMP}\nR3 10k out 0`,
    flow: ['G1', 'R1', 'R2', 'U1', 'R3'],
    lying: ['R1', 'R2'],
    standing: ['C2'],
    rows: [['R1', 'R2']],
  },
  {
    name: 'two opamps in a row',
    lines: `${DUAL}R6 100k in 0\nR1 1k m 0\nR2 10k m a\nU1 TL071 plus=in minus=m out=a ${OPAMP}\nR3 10k a n\nR4 47k n out\nU2 TL071 plus=0 minus=n out=out ${OPAMP}\nR5 10k out 0`,
    flow: ['G1', 'U1', 'R3', 'U2', 'R5'],
    lying: ['R2', 'R3', 'R4'],
    standing: ['R1', 'R5'],
  },
  {
    name: 'Darlington follower',
    lines: `${SINGLE}C1 1u in b\nR1 470k vcc b\nR2 470k b 0\nQ1 2N3904 vcc b m\nQ2 2N3904 vcc m e\nR3 100 e 0\nC2 470u e out\nR4 1k out 0`,
    flow: ['G1', 'C1', 'Q1', 'Q2', 'C2', 'R4'],
    stacked: [
      ['Q1', 'Q2'],
      ['Q2', 'R3'],
    ],
    lying: ['C1', 'C2'],
  },
  {
    name: 'complementary feedback pair',
    lines: `${SINGLE}C1 1u in b\nR1 100k vcc b\nR2 100k b 0\nQ1 2N3904 m b e\nR3 1k vcc m\nQ2 2N3906 e m vcc\nR4 1k e 0\nC2 47u e out\nR5 1k out 0`,
    flow: ['G1', 'C1', 'Q1', 'Q2'],
    standing: ['R3', 'R4'],
  },
  {
    name: 'bootstrapped load',
    lines: `${SINGLE}C1 1u in b\nR1 100k vcc b\nR2 22k b 0\nQ1 2N3904 c b e\nR3 1k e 0\nR6 2k2 vcc m\nR7 2k2 m c\nQ2 2N3904 vcc c out\nR8 1k out 0\nC3 47u out m\nC4 100u out sp\nLS1 8 sp 0`,
    flow: ['G1', 'C1', 'Q1', 'Q2', 'C4', 'LS1'],
    stacked: [['R6', 'R7', 'Q1', 'R3']],
    standing: ['R6', 'R7', 'R3', 'R8'],
  },
  {
    name: 'two stages, coupled',
    lines: `${SINGLE}C1 1u in b1\nR1 100k vcc b1\nR2 22k b1 0\nQ1 2N3904 c1 b1 e1\nR3 4k7 vcc c1\nR4 1k e1 0\nC2 1u c1 b2\nR5 100k vcc b2\nR6 22k b2 0\nQ2 2N3904 c2 b2 e2\nR7 4k7 vcc c2\nR8 1k e2 0\nC3 1u c2 out\nR9 100k out 0`,
    flow: ['G1', 'C1', 'Q1', 'C2', 'Q2', 'C3', 'R9'],
    stacked: [
      ['R3', 'Q1', 'R4'],
      ['R7', 'Q2', 'R8'],
    ],
    rows: [
      ['Q1', 'C1'],
      ['C2', 'Q2'],
    ],
  },
  {
    name: 'three low-pass sections in a row',
    lines:
      'G1 1V in 0\nR1 1k in a\nC1 10n a 0\nR2 10k a b\nC2 1n b 0\nR3 100k b out\nC3 100p out 0\nR4 1M out 0',
    flow: ['G1', 'R1', 'R2', 'R3'],
    rows: [
      ['R1', 'R2', 'R3'],
      ['C1', 'C2', 'C3'],
    ],
    standing: ['C1', 'C2', 'C3'],
  },
  {
    name: 'clipping diodes',
    lines: 'G1 1V in 0\nR1 1k in out\nD1 1N4148 out 0\nD2 1N4148 0 out\nR2 100k out 0',
    flow: ['G1', 'R1', 'D1'],
    lying: ['R1'],
    standing: ['D1', 'D2', 'R2'],
  },
  {
    name: 'Zobel network at a loudspeaker',
    lines: 'G1 1V out 0\nR1 10 out z\nC1 100n z 0\nLS1 8 out 0',
    flow: ['G1', 'R1'],
    stacked: [['R1', 'C1']],
    standing: ['R1', 'C1'],
  },
  {
    name: 'half-wave rectifier and reservoir',
    lines: 'G1 10V in 0\nD1 1N4007 in out\nC1 1000u out 0\nR1 1k out 0',
    flow: ['G1', 'D1', 'C1'],
    lying: ['D1'],
    standing: ['C1', 'R1'],
  },
  {
    name: 'bridge rectifier with its reservoir and a cell',
    lines:
      'G1 20V p 0\nT1 1 p 0 x y\nD1 1N4007 x top\nD2 1N4007 y top\nD3 1N4007 0 x\nD4 1N4007 0 y\nC1 2200u top 0\nR1 100 top o\nC2 1000u o 0\nR2 1k o 0',
    flow: ['G1', 'T1', 'D1', 'D2', 'C1', 'R1'],
    stacked: [
      ['D1', 'D3'],
      ['D2', 'D4'],
    ],
    standing: ['D1', 'D2', 'D3', 'D4', 'C1'],
    rows: [
      ['D1', 'D2'],
      ['D3', 'D4'],
    ],
  },
  {
    name: 'bridge rectifier of two supplies',
    lines:
      'G1 20V p 0\nT1 1 p 0 x y\nD1 1N4007 y top\nD2 1N4007 low x\nD3 1N4007 x top\nD4 1N4007 low y\nC1 2200u top 0\nC2 2200u 0 low\nR1 1k top 0\nR2 1k 0 low',
    flow: ['G1', 'T1', 'D1', 'D3'],
    stacked: [
      ['D3', 'D2'],
      ['D1', 'D4', 'C2'],
    ],
    standing: ['D1', 'D2', 'D3', 'D4', 'C1', 'C2'],
    rows: [
      ['D1', 'D3'],
      ['D2', 'D4'],
    ],
  },
  {
    name: 'capsule with its load',
    lines: 'V1 9V vcc 0\nR1 4k7 vcc m\nMK1 electret m 0\nC1 1u m out\nR2 100k out 0',
    flow: ['MK1', 'C1', 'R2'],
    stacked: [['R1', 'MK1']],
    lying: ['C1'],
  },
];

const draw = (lines: string) => {
  const circuit = circuitOf(lines);
  const drawing = layoutCircuit(circuit, { textOf: (p) => (p.model ?? String(p.marked ?? '')).slice(0, 6) });
  return { circuit, drawing };
};
const symbol = (drawing: Drawing, ref: string) => drawing.symbols.find((s) => s.part.ref === ref)!;
const middle = (drawing: Drawing, ref: string) => {
  const { body } = symbol(drawing, ref);
  return { x: (body.left + body.right) / 2, y: (body.top + body.bottom) / 2 };
};
const isAscending = (numbers: readonly number[]) => numbers.every((n, i) => i === 0 || n > numbers[i - 1]!);
const isLying = (drawing: Drawing, ref: string) => {
  const [a, b] = symbol(drawing, ref).pins;
  return a!.y === b!.y;
};

describe.each(TEXTBOOK)('$name', ({ lines, flow, stacked = [], lying = [], standing = [], rows = [] }) => {
  const { circuit, drawing } = draw(lines);

  it('has no wire through anything, and every net joined', () => {
    expect([...faults(drawing), ...wiringFaults(circuit, drawing)]).toEqual([]);
  });

  it('runs from left to right', () => {
    expect(flow.map((ref) => `${ref} ${middle(drawing, ref).x}`)).toSatisfy(() =>
      isAscending(flow.map((ref) => middle(drawing, ref).x)),
    );
  });

  it('has its parts as they are drawn: stacked, lying, standing, on one row', () => {
    for (const column of stacked)
      expect(
        isAscending(column.map((ref) => middle(drawing, ref).y)),
        `${column.join(' over ')}: ${column.map((ref) => middle(drawing, ref).y).join(' ')}`,
      ).toBe(true);
    for (const ref of lying) expect(isLying(drawing, ref), `${ref} lies`).toBe(true);
    for (const ref of standing) expect(isLying(drawing, ref), `${ref} lies`).toBe(false);
    for (const row of rows)
      expect(new Set(row.map((ref) => middle(drawing, ref).y)).size, row.join(' ')).toBe(1);
  });

  it('has the supply over what it feeds and the ground under it', () => {
    for (const { kind, from, box } of drawing.marks) {
      const middleY = (box.top + box.bottom) / 2;
      if (kind === 'ground' || kind === 'negative rail') expect(middleY).toBeGreaterThan(from.y);
      if (kind === 'positive rail') expect(middleY).toBeLessThan(from.y);
    }
  });
});
