import type { Board, Wire } from '@zemble/contract';
import { describe, expect, it } from 'vitest';
import { resolveLayer } from '../../circuit/changes/index.ts';
import { evaluateAll } from '../../analysis/readouts/index.ts';
import { circuitOf, seeded } from '../../testing/circuits.ts';
import { checkWiring, contactsOf, lugsOf, parseWireLine, positionTable, rewiredEnds } from './index.ts';

const circuit = resolveLayer(
  circuitOf(`V1 9 vcc 0
J1 jack tip=in sleeve=0
P1 100k out wiper 0
SW1 vcc bat
LS1 speaker wiper 0
R1 10k in out
R2 10k out 0
C1 100u bat 0`),
  'planned',
);
const board: Board = {
  id: 'b1',
  style: 'strip',
  columns: 9,
  rows: 9,
  places: [],
  cuts: [],
  links: [],
  terminals: [
    { net: 'in', hole: [0, 0] },
    { net: '0', name: 'gnd1', hole: [0, 2] },
  ],
};
const right: readonly Wire[] = [
  { id: 'w1', colour: 'white', from: 'J1.tip', to: 'board.in' },
  { id: 'w2', colour: 'black', from: 'J1.sleeve', to: 'board.gnd1' },
  { id: 'w3', colour: 'green', from: 'P1.1', to: 'board.out' },
  { id: 'w4', colour: 'yellow', from: 'P1.2', to: 'LS1.a' },
  { id: 'w5', colour: 'black', from: 'P1.3', to: 'board.0' },
  { id: 'w6', colour: 'black', from: 'LS1.b', to: 'P1.3' },
  { id: 'w7', colour: 'red', from: 'V1.plus', to: 'SW1.a' },
  { id: 'w8', colour: 'black', from: 'V1.minus', to: 'board.0' },
  { id: 'w9', colour: 'orange', from: 'SW1.b', to: 'board.bat' },
];
const codes = (wires: readonly Wire[]) => checkWiring(circuit, wires, [board]).problems.map((p) => p.code);

describe('the wires of a unit', () => {
  it('are right where every lug of a net is tied to the rest of it', () => {
    expect(checkWiring(circuit, right, [board]).problems).toEqual([]);
  });

  it('are found wrong wherever one is planted wrong, a hundred times', () => {
    for (let seed = 1; seed <= 100; seed += 1) {
      const random = seeded(seed);
      const i = Math.floor(random() * right.length);
      const lost = codes(right.filter((_, k) => k !== i));
      expect(lost.length, `without ${right[i]!.id}`).toBeGreaterThan(0);
      expect(lost.every((c) => c === 'missing-wire' || c === 'forgotten-lug')).toBe(true);
      // Its far end on the far end of a wire of another net.
      const others = right.filter((w) => netOf(w) !== netOf(right[i]!));
      const other = others[Math.floor(random() * others.length)]!;
      const crossed = right.map((w, k) => (k === i ? { ...w, to: other.to } : w));
      expect(codes(crossed), `${right[i]!.id} to ${other.to}`).toContain('joins-nets');
    }
  });
  const netOf = (w: Wire) =>
    checkWiring(circuit, [w], [board])
      .wires[0]!.ends.map((e) => (e.on === 'words' ? '' : e.net))
      .join();

  it('name the lug that was forgotten, the net that has no wire, the lug that is none', () => {
    const said = (wires: readonly Wire[]) =>
      checkWiring(circuit, wires, [board])
        .problems.map((p) => p.message)
        .join(' ');
    expect(said(right.filter((w) => w.id !== 'w2'))).toContain(
      'J1.sleeve is a lug of 0, and no wire reaches it',
    );
    expect(said(right.filter((w) => w.id !== 'w3'))).toContain(
      'out leaves the board to P1.1, and no wire carries it',
    );
    expect(said([...right, { id: 'x', from: 'P1.9', to: 'board.in' }])).toContain('P1 has the lugs 1, 2, 3');
    expect(said([...right, { id: 'x', from: 'the blue one', to: 'board.nowhere' }])).toContain(
      'no terminal and the circuit no net',
    );
    expect(said([...right, { id: 'x', from: 'P1.1', to: 'P1.1' }])).toContain('both ends at P1.1');
    expect(said(right.map((w) => (w.id === 'w1' ? { ...w, net: 'out' } : w)))).toContain('said to be of out');
  });

  it('may be old ones whose net is not known yet', () => {
    expect(
      codes([...right, { id: 'old', colour: 'blue', from: 'grey lug beside the fuse', to: 'board.in' }]),
    ).toEqual([]);
  });

  it('of one colour at one part on two nets can be taken for one another; of one net they cannot', () => {
    expect(codes(right.map((w) => (w.id === 'w3' ? { ...w, colour: 'Yellow' } : w)))).toEqual(['alike']);
    expect(codes(right.map((w) => (w.id === 'w9' ? { ...w, colour: 'white' } : w)))).toEqual(['alike']);
  });
});

describe('lugs from behind', () => {
  it('show a potentiometer the other way round than from its shaft (common practice)', () => {
    const lugs = lugsOf(circuit.parts.find((p) => p.ref === 'P1')!);
    expect([...lugs].sort((a, b) => a.x - b.x).map((l) => l.pin)).toEqual(['3', '2', '1']);
  });

  it('say what a jack joins with a plug and without', () => {
    const jack = { kind: 'jack', pins: { tip: 'a', sleeve: '0', ring: 'r', tipSwitch: 's' } } as const;
    expect(contactsOf(jack)).toEqual([
      { position: 'no plug', state: false, joined: [['tip', 'tipSwitch']] },
      { position: 'mono plug in', state: true, joined: [['ring', 'sleeve']] },
      { position: 'stereo plug in', joined: [] },
    ]);
  });
});

describe('positions of a switch', () => {
  it('are told by what they do to the readouts: a divider of two tens, and half of its foot shorted', () => {
    const unit = {
      unit: {},
      circuit: circuitOf('V1 9 vcc 0\nR1 10k vcc a\nR2 5k a b\nR3 5k b 0\nSW1 b 0'),
      readouts: [{ id: 'a', name: 'At a', kind: 'voltage', net: 'a' }] as const,
    };
    const table = positionTable(unit);
    const at = (position: string) => {
      const answer = table.find((p) => p.position === position)!.answers[0];
      return answer?.ok === true ? answer.value : null;
    };
    // 9 V through 10k over 10k, and over 5k (voltage divider).
    expect(at('open')).toBeCloseTo(4.5, 3);
    expect(at('closed')).toBeCloseTo(3, 2);
  });

  it('and those of a potentiometer at its ends and in the middle, which is a divider too', () => {
    const unit = {
      unit: {},
      circuit: circuitOf('V1 9 vcc 0\nG1 1V in 0\nC1 10n in w\nP1 10k 0 w vcc\nR1 10M w 0'),
      readouts: [
        { id: 'w', name: 'Wiper', kind: 'voltage', net: 'w' },
        { id: 'thd', name: 'Distortion', kind: 'thd', source: 'G1', out: 'w', levelV: 1, frequencyHz: 1000 },
      ] as const,
    };
    const answers = (i: number, which?: 'all') => positionTable(unit, which).map((p) => p.answers[i]);
    const told = answers(0).map((a) => (a?.ok === true ? a.value : Number.NaN));
    // 9 V by travel from pin 1 at ground; the ends are a few ohms off.
    [0, 4.5, 9].forEach((v, i) => expect(Math.abs(told[i]! - v)).toBeLessThan(0.05));
    expect(positionTable(unit).map((p) => [p.position, p.joined])).toEqual([
      ['at 0 %', [['2', '1']]],
      ['at 50 %', []],
      ['at 100 %', [['2', '3']]],
    ]);
    // Turned, and built anew with the knob there, are one.
    for (const [i, position] of [0, 0.5, 1].entries()) {
      const lines = `V1 9 vcc 0\nG1 1V in 0\nC1 10n in w\nP1 10k 0 w vcc position=${position}\nR1 10M w 0`;
      const built = resolveLayer(circuitOf(lines), 'planned');
      const [answer] = evaluateAll(built, unit.readouts.slice(0, 1));
      expect(answer?.ok === true ? answer.value : Number.NaN).toBeCloseTo(told[i]!, 12);
    }
    // What takes runs in time is computed where all is asked for, and not before.
    expect(answers(1)).toEqual([null, null, null]);
    expect(answers(1, 'all').map((a) => a?.ok)).toEqual([true, true, true]);
  });
});

describe('wires that the work moves', () => {
  it('are named with where they were, where they go, and the way back', () => {
    const after = {
      ...circuit,
      parts: circuit.parts.map((p) => (p.ref === 'P1' ? { ...p, pins: { ...p.pins, 1: 'in' } } : p)),
    };
    expect(rewiredEnds(right, circuit, after)).toMatchObject([
      {
        lug: 'P1.1',
        before: 'out',
        after: 'in',
        back: 'Back to stock: the green wire w3 at P1.1 goes to out again.',
      },
    ]);
  });
});

describe('a wire as it is typed', () => {
  it('knows the colours of the trade, and says which word is none', () => {
    const colour = (line: string) => {
      const read = parseWireLine(line);
      return read.ok ? read.wire.colour : read.why;
    };
    expect(colour('purple P1.2 to J1.sleeve')).toBe('violet');
    expect(colour('transparent P1.2 board.in')).toBe('clear');
    expect(colour('white/blue P1.2 board.in')).toBe('white-blue');
    expect(colour('mauve P1.2 board.in')).toContain('"mauve" is no colour that is known');
  });

  it('has a colour, two ends and a length, in any order', () => {
    expect(parseWireLine('green P1.2 board.in 120mm')).toEqual({
      ok: true,
      wire: { colour: 'green', from: 'P1.2', to: 'board.in', length: '120mm' },
    });
    expect(parseWireLine('J1.tip -> "old grey lug" Green-Yellow')).toEqual({
      ok: true,
      wire: { colour: 'green-yellow', from: 'J1.tip', to: 'old grey lug' },
    });
    expect(parseWireLine('green P1.2')).toMatchObject({
      ok: false,
      why: expect.stringContaining('1 was read'),
    });
    expect(parseWireLine('')).toMatchObject({ ok: false });
    expect(parseWireLine(`${'X'.repeat(200)} y`)).toMatchObject({
      ok: false,
      why: expect.stringContaining('at most 120'),
    });
    expect(parseWireLine('a\u0000b c')).toMatchObject({ ok: false, why: expect.stringContaining('NUL') });
    expect(parseWireLine('__proto__ constructor')).toMatchObject({ ok: true });
  });
});
