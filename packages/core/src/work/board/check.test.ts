import type { Board, Hole } from '@zemble/contract';
import { describe, expect, it } from 'vitest';
import { resolveLayer } from '../../circuit/changes/index.ts';
import type { LayerCircuit } from '../../circuit/circuit/index.ts';
import { secondLook } from '../../testing/boards.ts';
import { circuitOf, seeded } from '../../testing/circuits.ts';
import { checkBoard, type BoardCode } from './index.ts';

const layerOf = (lines: string): LayerCircuit => resolveLayer(circuitOf(lines), 'planned');
/** Columns from one part to the next on a board that is right by its making. */
const STEP = 6;
const blank: Board = {
  id: 'b1',
  style: 'strip',
  columns: 24,
  rows: 9,
  places: [],
  cuts: [],
  links: [],
  terminals: [],
};
const codes = (circuit: LayerCircuit, board: Partial<Board>, wires: Parameters<typeof checkBoard>[2] = []) =>
  checkBoard(circuit, { ...blank, ...board }, wires).problems.map((p) => p.code);

type Draft = { -readonly [K in keyof Board]: Board[K] };

/** Parts between random nets, without sources. */
function randomCircuit(random: () => number, count: number): LayerCircuit {
  const nets = ['0', ...Array.from({ length: 2 + Math.floor(count / 2) }, (_, i) => `n${i}`)];
  const pick = () => nets[Math.floor(random() * nets.length)]!;
  const lines = Array.from({ length: count }, (_, i) => {
    const [a, b, c] = [pick(), pick(), pick()];
    return random() < 0.2
      ? `Q${i} 2N3904 ${a} ${b} ${c}`
      : random() < 0.5
        ? `R${i} 10k ${a} ${b}`
        : `C${i} 100n ${a} ${b}`;
  });
  return layerOf(lines.join('\n'));
}

/**
 * A board that is right by its making: a row a net, every part in a column of its own far from the next, and here and there a
 * strip cut in two with a link around the cut.
 */
function rightBoard(circuit: LayerCircuit, random: () => number): Draft {
  const nets = [...new Set(circuit.parts.flatMap((p) => Object.values(p.pins)))];
  const rowOf = new Map(nets.map((net, i) => [net, i * 2]));
  const used = new Map<number, number>();
  const places = circuit.parts.map((part, i) => {
    const holes: Record<string, Hole> = {};
    Object.entries(part.pins).forEach(([pin, net], k) => {
      holes[pin] = [STEP * (i + 1) + (Object.values(part.pins).indexOf(net) === k ? 0 : k), rowOf.get(net)!];
      used.set(rowOf.get(net)!, (used.get(rowOf.get(net)!) ?? 0) + 1);
    });
    return { ref: part.ref, holes };
  });
  const [cuts, links]: [Hole[], Board['links'][number][]] = [[], []];
  for (const row of rowOf.values())
    if (random() < 0.4) {
      const column = STEP * (1 + Math.floor(random() * circuit.parts.length)) + 4;
      cuts.push([column, row]);
      links.push({ from: [column - 1, row], to: [column + 1, row] });
    }
  return { ...blank, columns: STEP * (circuit.parts.length + 2), rows: nets.length * 2, places, cuts, links };
}

describe('a board and its circuit', () => {
  const divider = layerOf('R1 10k in out\nR2 10k out 0');
  const right: Partial<Board> = {
    places: [
      { ref: 'R1', holes: { a: [2, 0], b: [2, 4] } },
      { ref: 'R2', holes: { a: [5, 4], b: [5, 8] } },
    ],
    terminals: [{ net: 'in', hole: [0, 0] }],
  };

  it('is right where every net is on a piece of its own', () => {
    const report = checkBoard(divider, { ...blank, ...right });
    expect(report).toMatchObject({ ok: true, problems: [] });
    // The whole strip belongs to the net whose pin is on it.
    expect(report.nets.get('out')).toHaveLength(24);
  });

  it('takes the copper of its own hole away at a cut: neither neighbour touches it', () => {
    const cut = checkBoard(divider, { ...blank, ...right, cuts: [[3, 4]] });
    expect(cut.problems.map((p) => p.code)).toEqual(['open']);
    expect(cut.nets.get('out')).not.toContainEqual([3, 4]);
    expect(codes(divider, { ...right, cuts: [[2, 4]] })).toContain('cut-under-pin');
  });

  it('names what is not placed, placed twice, not there, without a hole, beside the board', () => {
    expect(codes(divider, { places: [] })).toEqual(['unplaced', 'unplaced']);
    expect(codes(divider, { ...right, places: [...right.places!, right.places![0]!] })).toContain(
      'wrong-pins',
    );
    const odd = (place: Board['places'][number]) =>
      checkBoard(divider, { ...blank, ...right, places: [...right.places!.slice(0, 1), place] }).problems.map(
        (p) => p.message,
      );
    expect(odd({ ref: 'R9', holes: { a: [1, 1] } }).join()).toContain('the circuit has no such part');
    expect(odd({ ref: 'R2', holes: { a: [5, 4] } }).join()).toContain('R2 has no hole for its pin b');
    expect(odd({ ref: 'R2', holes: { a: [5, 4], x: [5, 8] } }).join()).toContain('R2 has no pin "x"');
    expect(odd({ ref: 'R2', holes: { a: [5, 4], b: [5, 80] } }).join()).toContain('outside the board');
    expect(codes(divider, { ...right, terminals: [{ net: 'nowhere', hole: [0, 0] }] })).toContain(
      'wrong-pins',
    );
  });

  it('does not ask for what stands beside the board, or what a wire reaches', () => {
    const withPot = layerOf('V1 9 vcc 0\nP1 10k vcc out 0\nR1 10k out 0');
    const placed = { places: [{ ref: 'R1', holes: { a: [2, 0], b: [2, 4] } as const }] };
    expect(codes(withPot, placed)).toEqual(['unplaced']);
    expect(codes(withPot, placed, [{ id: 'w1', from: 'P1.2', to: 'board.out' }])).toEqual([]);
  });
});

describe('bodies on a board', () => {
  const two = layerOf('R1 10k a b\nR2 10k c d');
  const beside = (row: number) =>
    codes(two, {
      places: [
        { ref: 'R1', holes: { a: [2, 2], b: [6, 2] } },
        { ref: 'R2', holes: { a: [9, row], b: [13, row] } },
      ],
      cuts: [
        [4, 2],
        [11, row],
        [7, 2],
      ],
    });

  it('lie beside one another row by row where they are no thicker than the pitch (a quarter watt: 2.4 mm)', () => {
    const at = (row: number, power: string) =>
      codes(layerOf(`R1 10k ${power} a b\nR2 10k ${power} c d`), {
        places: [
          { ref: 'R1', holes: { a: [2, 2], b: [9, 2] } },
          { ref: 'R2', holes: { a: [2, row], b: [9, row] } },
        ],
        cuts: [
          [5, 2],
          [5, row],
        ],
      });
    expect(at(3, '')).toEqual([]);
    expect(at(3, '2W')).toEqual(['overlap']);
    expect(at(5, '2W')).toEqual([]);
    expect(beside(2)).not.toContain('overlap');
  });

  it('may not cross, nor stand on a bare lead of another, though a link goes under', () => {
    const crossed = {
      places: [
        { ref: 'R1', holes: { a: [2, 4], b: [8, 4] } as const },
        { ref: 'R2', holes: { a: [5, 1], b: [5, 7] } as const },
      ],
      cuts: [[4, 4]] as Hole[],
    };
    expect(codes(two, crossed)).toEqual(['overlap']);
    const underLead = {
      ...crossed,
      places: [crossed.places[0]!, { ref: 'R2', holes: { a: [3, 4], b: [3, 8] } as const }],
    };
    expect(codes(two, { ...underLead, cuts: [[5, 4]] })).toContain('overlap');
    expect(
      codes(two, {
        places: [crossed.places[0]!, { ref: 'R2', holes: { a: [12, 1], b: [12, 7] } }],
        cuts: [[4, 4]],
        links: [{ from: [5, 2], to: [5, 6] }],
      }),
    ).toEqual([]);
  });
});

describe('a chip on a board', () => {
  const opamps = layerOf('U1A TL072 a b c vc ve\nU1B TL072 d e f vc ve');
  const dip = (mirror: boolean): Board['places'] => {
    const hole = (pin: number): Hole => {
      const [side, row] = pin <= 4 ? [0, pin - 1] : [3, 8 - pin];
      return [4 + (mirror ? 3 - side : side), 1 + row];
    };
    return [
      { ref: 'U1', holes: Object.fromEntries([1, 2, 3, 4, 5, 6, 7, 8].map((n) => [String(n), hole(n)])) },
    ];
  };
  const cuts: Hole[] = [1, 2, 3, 4].map((row): Hole => [5, row]);

  it('is placed by the numbers of its package, once for its units', () => {
    expect(codes(opamps, { places: dip(false), cuts })).toEqual([]);
  });

  it('is told when its pins go round the wrong way: seen from the copper side', () => {
    const report = checkBoard(opamps, { ...blank, places: dip(true), cuts });
    expect(report.problems.map((p) => p.code)).toContain('wrong-pins');
    expect(report.problems[0]!.message).toContain('seen from the copper side');
  });
});

describe('a thousand boards', () => {
  it('are judged as an independent painting of the copper judges them, whatever lies on them', () => {
    for (let seed = 1; seed <= 500; seed += 1) {
      const random = seeded(seed);
      const circuit = randomCircuit(random, 2 + Math.floor(random() * 8));
      const [columns, rows] = [8 + Math.floor(random() * 20), 4 + Math.floor(random() * 12)];
      const hole = (): Hole => [Math.floor(random() * columns), Math.floor(random() * rows)];
      const board: Board = {
        ...blank,
        style: random() < 0.3 ? 'pads' : 'strip',
        columns,
        rows,
        places: circuit.parts.map((p) => ({
          ref: p.ref,
          holes: Object.fromEntries(Object.keys(p.pins).map((pin) => [pin, hole()])),
        })),
        cuts: Array.from({ length: Math.floor(random() * 12) }, hole),
        links: Array.from({ length: Math.floor(random() * 12) }, () => ({ from: hole(), to: hole() })),
        terminals: [{ net: '0', hole: hole() }].filter(() =>
          circuit.parts.some((p) => Object.values(p.pins).includes('0')),
        ),
      };
      const { problems } = checkBoard(circuit, board);
      const netsOf = (code: BoardCode) =>
        problems
          .filter((p) => p.code === code)
          .map((p) => [...p.nets!].sort().join(' '))
          .sort();
      const { shorts, opens } = secondLook(circuit, board);
      expect(netsOf('short'), `seed ${seed}`).toEqual(shorts);
      expect(netsOf('open'), `seed ${seed}`).toEqual(opens);
    }
  });

  const faults: readonly (readonly [
    BoardCode,
    (board: Draft, random: () => number, circuit: LayerCircuit) => boolean,
  ])[] = [
    [
      'short',
      (board) => {
        const [one, other] = [board.places[0]!, board.places.at(-1)!];
        const [[c1, r1], [c2, r2]] = [Object.values(one.holes)[0]!, Object.values(other.holes).at(-1)!];
        if (r1 === r2) return false;
        board.links = [...board.links, { from: [c1 + 2, r1], to: [c2 + 2, r2] }];
        return true;
      },
    ],
    [
      'open',
      (board, _random, circuit) => {
        const pins = board.places.flatMap(({ ref, holes }) =>
          Object.entries(holes).map(([pin, hole]) => ({
            net: circuit.parts.find((p) => p.ref === ref)!.pins[pin]!,
            hole,
          })),
        );
        for (const { net, hole } of pins) {
          const next = pins.find((p) => p.net === net && p.hole[0] >= hole[0] + STEP - 2);
          if (!next) continue;
          board.cuts = [...board.cuts, [STEP * Math.floor(next.hole[0] / STEP) - 1, hole[1]]];
          return true;
        }
        return false;
      },
    ],
    [
      'cut-under-pin',
      (board) => {
        board.cuts = [...board.cuts, Object.values(board.places[0]!.holes)[0]!];
        return true;
      },
    ],
    [
      'shared-hole',
      (board) => {
        const [hole] = Object.values(board.places[0]!.holes);
        board.terminals = [{ net: board.id, hole: hole! }];
        return true;
      },
    ],
    [
      'overlap',
      (board) => {
        const two = board.places.filter((p) => Object.keys(p.holes).length === 2);
        const over = two.find(({ holes }) => Math.abs(holes.a![1] - holes.b![1]) >= 4);
        const across = two.find((p) => p !== over);
        if (!over || !across) return false;
        const [column, row] = [over.holes.a![0], Math.min(over.holes.a![1], over.holes.b![1]) + 1];
        board.places = board.places.map((p) =>
          p === across ? { ref: p.ref, holes: { a: [column - 3, row], b: [column + 3, row] } } : p,
        );
        return true;
      },
    ],
    [
      'off-board',
      (board) => {
        board.rows -= 2;
        return true;
      },
    ],
    [
      'unplaced',
      (board) => {
        board.places = board.places.slice(1);
        return true;
      },
    ],
  ];

  it('have no false alarm where they are right, and every planted fault is named', () => {
    const planted = new Map<BoardCode, number>();
    for (let seed = 1; seed <= 500; seed += 1) {
      const random = seeded(seed);
      const circuit = randomCircuit(random, 3 + Math.floor(random() * 6));
      const board = rightBoard(circuit, random);
      expect(checkBoard(circuit, board).problems, `seed ${seed}`).toEqual([]);
      const [code, plant] = faults[seed % faults.length]!;
      const net = circuit.parts[0]!.pins;
      const wrong: Draft = { ...board, id: Object.values(net)[0]! };
      if (!plant(wrong, random, circuit)) continue;
      planted.set(code, (planted.get(code) ?? 0) + 1);
      expect(
        checkBoard(circuit, wrong).problems.map((p) => p.code),
        `${code}, seed ${seed}`,
      ).toContain(code);
    }
    for (const [code] of faults) expect(planted.get(code), code).toBeGreaterThan(20);
  });
});
