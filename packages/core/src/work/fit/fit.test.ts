import type { Panel, PanelControl } from '@zemble/contract';
import { describe, expect, it } from 'vitest';
import { resolveLayer } from '../../circuit/changes/index.ts';
import { blankBoard } from '../board/index.ts';
import { circuitOf } from '../../testing/circuits.ts';
import { checkFit, freePlaces, parsePanelLine, standingUnder } from './index.ts';

const circuit = resolveLayer(circuitOf('C1 100u 25V a 0\nSW1 a b'), 'planned');
const control = (id: string, x: number, y: number, more: Partial<PanelControl> = {}): PanelControl => ({
  id,
  at: { x, y },
  holeMm: 6,
  lengthMm: 10,
  widthMm: 10,
  depthMm: 20,
  ...more,
});
const panel = (controls: readonly PanelControl[], more: Partial<Panel> = {}): Panel => ({
  id: 'p',
  widthMm: 100,
  heightMm: 60,
  gapMm: 40,
  controls: [...controls],
  ...more,
});
const BOX = { id: 'o', name: 'T1', at: { x: 50, y: 30 }, lengthMm: 20, widthMm: 20, heightMm: 25 };
const problems = (p: Panel) => checkFit(p, standingUnder(p, [], circuit));

describe('a panel over what stands under it', () => {
  it('finds by how much known rectangles meet: 20 mm deep and 25 mm high in 40 mm', () => {
    // The bodies share x 55..60, so 5 mm aside; 20 + 25 - 40 = 5 mm too deep.
    const [found] = problems(panel([control('s', 60, 30)], { obstacles: [BOX] }));
    expect(found).toMatchObject({ code: 'collision', controls: ['s'], meets: ['T1'] });
    expect(found!.message).toContain('5 mm too deep. It goes 5 mm aside');
    expect(problems(panel([control('s', 66, 30)], { obstacles: [BOX] }))).toEqual([]);
    expect(problems(panel([control('s', 60, 30)], { obstacles: [BOX], gapMm: 47 }))).toEqual([]);
    expect(problems(panel([control('s', 60, 30)], { obstacles: [BOX], gapMm: 46 }))[0]!.message).toContain(
      'only 1 mm over',
    );
  });

  it('finds what goes through the lid, into the board, and what stands closer than anybody fits it', () => {
    const low = { gapMm: 20, obstacles: [BOX] };
    expect(problems(panel([], low)).map((p) => p.message)).toEqual([
      'T1 is 25 mm high and has 20 mm: it is 5 mm too tall for the lid.',
    ]);
    expect(problems(panel([control('s', 10, 10, { depthMm: 30 })], { gapMm: 20 }))[0]).toMatchObject({
      code: 'deep',
    });
    expect(freePlaces(panel([], { gapMm: 10 }), [], control('s', 0, 0, { depthMm: 30 }))).toEqual([]);
    // 0.2 mm beside it, 10 mm of their heights overlapping.
    const beside = problems(panel([control('s', 65.2, 30)], { obstacles: [BOX], gapMm: 35 }));
    expect(beside.map((p) => p.message)).toEqual(['s goes down only 0.2 mm beside T1.']);
    expect(problems(panel([control('a', 20, 20), control('b', 30.1, 20)])).map((p) => p.message)).toEqual([
      'a and b are only 0.1 mm apart.',
    ]);
  });

  it('finds a board that sticks out beside its panel', () => {
    const board = blankBoard('b1', 'strip', 12, 12);
    const p = panel([], { widthMm: 120, board: { id: 'b1', at: { x: 110, y: 10 }, quarters: 0 } });
    // 11.5 holes of 2.54 mm behind 110 mm end at 139.2 mm.
    expect(checkFit(p, [], [board]).map((f) => f.message)).toEqual([
      'The board sticks 19.2 mm out beside the panel.',
    ]);
  });

  it('finds controls that meet one another, and the edge', () => {
    expect(problems(panel([control('a', 20, 20), control('b', 27, 20)])).map((p) => p.code)).toEqual([
      'controls',
    ]);
    expect(problems(panel([control('a', 3, 20)]))[0]!.message).toContain('2 mm over the edge');
  });

  it('knows the parts of a board by their heights, turned and moved with it', () => {
    const board = {
      ...blankBoard('b1', 'strip', 12, 12),
      places: [{ ref: 'C1', holes: { a: [4, 0], b: [4, 2] } as const }],
    };
    const at = (quarters: number) => {
      const p = panel([], { board: { id: 'b1', at: { x: 20, y: 20 }, quarters } });
      const [c1] = standingUnder(p, [board], circuit);
      const xs = c1!.shape.map((q) => q.x);
      return { x: (Math.min(...xs) + Math.max(...xs)) / 2, height: c1!.heightMm };
    };
    // Column 4 is 10.16 mm to the right; a quarter turn makes row 1 of it, 2.54 mm to the left.
    expect(at(0).x).toBeCloseTo(30.16, 1);
    expect(at(1).x).toBeCloseTo(20 - 2.54, 1);
    expect(at(0).height).toBe(11);
  });

  it('names the places where another control goes, and each of them is free', () => {
    const p = panel([control('a', 20, 20)], { obstacles: [BOX] });
    const standing = standingUnder(p, [], circuit);
    const free = freePlaces(p, standing, control('', 0, 0));
    expect(free.length).toBeGreaterThan(50);
    for (const at of free)
      expect(checkFit({ ...p, controls: [...p.controls, control('n', at.x, at.y)] }, standing)).toEqual([]);
    expect(free.some(({ x, y }) => Math.abs(x - 50) < 14 && Math.abs(y - 30) < 14)).toBe(false);
  });
});

describe('a control as it is typed', () => {
  const read = (line: string) => parsePanelLine(line, circuit.parts);

  it('has the usual size of its kind where nothing else is said', () => {
    expect(read('SW1 40 20')).toMatchObject({
      ok: true,
      control: { ref: 'SW1', at: { x: 40, y: 20 }, holeMm: 6.5 },
    });
    expect(read('P9 40 20 hole 8 body 24x26 deep 15mm')).toMatchObject({
      control: { name: 'P9', holeMm: 8, lengthMm: 24, widthMm: 26, depthMm: 15 },
    });
    expect(read('T1 100 40 body 50x40 tall 35')).toMatchObject({
      obstacle: { name: 'T1', heightMm: 35, lengthMm: 50 },
    });
  });

  it('is refused with a sentence where it has no place or no size', () => {
    for (const line of [
      '',
      'SW1',
      'SW1 40',
      'SW1 40 20 hole',
      'SW1 a b',
      'SW1 40 20 body 0x0',
      'SW1 1 2 3',
      'SW1 1e308 5',
      `${'X'.repeat(90)} 1 2`,
      '\u0000 1 2',
    ])
      expect(read(line), line).toMatchObject({ ok: false, why: expect.stringMatching(/\w/) });
  });
});
