import type { Board } from '@zemble/contract';
import { describe, expect, it } from 'vitest';
import { command, divider, unitFile } from './testing/command.ts';

const right = {
  id: 'b1',
  style: 'strip',
  columns: 12,
  rows: 12,
  places: [],
  terminals: [],
};

describe('board', () => {
  const answer = (...args: string[]) => command('board', ...args);

  it('proposes a board, which then passes the check', async () => {
    const file = await unitFile('plain.json', divider);
    const proposed = await answer(file, '--propose', '--columns', '20', '--rows', '12');
    expect(proposed.code).toBe(0);
    const { board } = proposed.answer as { board: Board };
    const with_ = await unitFile('boarded.json', { ...divider, boards: [board] });
    const checked = await answer(with_, '--board', 'b1');
    expect(checked.answer).toMatchObject({ ok: true, problems: [] });
    expect((await answer(file, '--propose', '--columns', '20', '--rows', '12')).answer).toEqual(
      proposed.answer,
    );
  });

  it('names what is missing on an empty one', async () => {
    const file = await unitFile('empty.json', { ...divider, boards: [right] });
    expect((await answer(file)).answer).toMatchObject({
      ok: false,
      problems: [{ code: 'unplaced' }, {}, {}, {}],
    });
  });

  it('refuses a million columns, holes that are none, a board that is not there, a style that is none', async () => {
    const wide = await unitFile('wide.json', { ...divider, boards: [{ ...right, columns: 1e6 }] });
    expect(await answer(wide)).toMatchObject({
      code: 2,
      sentence: expect.stringContaining('at most 200 columns'),
    });
    const odd = await unitFile('odd.json', { ...divider, boards: [{ ...right, cuts: [[1.5, 2]] }] });
    expect(await answer(odd)).toMatchObject({
      code: 2,
      sentence: expect.stringContaining('two whole numbers'),
    });
    const file = await unitFile('one.json', { ...divider, boards: [right] });
    expect(await answer(file, '--board', 'x')).toMatchObject({
      code: 2,
      sentence: expect.stringContaining('there is b1'),
    });
    const plain = await unitFile('plain.json', divider);
    expect(await answer(plain)).toMatchObject({ code: 2, sentence: expect.stringContaining('has no board') });
    const wish = ['--propose', '--columns', '9', '--rows', '9'];
    expect(await answer(plain, ...wish, '--style', 'veined')).toMatchObject({ code: 2 });
    expect(await answer(plain, '--propose', '--columns', '1000000', '--rows', '9')).toMatchObject({
      code: 2,
    });
    expect(await answer(plain, '--propose', '--columns', '1', '--rows', '2')).toMatchObject({
      code: 1,
      sentence: expect.stringContaining('legs'),
    });
  });
});

describe('steps', () => {
  const planned = {
    ...divider,
    changes: [
      {
        id: 'm1',
        name: 'Heavier',
        purpose: 'modification',
        state: 'planned',
        steps: [{ do: 'fit', ref: 'R1', value: '820' }],
      },
    ],
  };

  it('are those of the planned changes, of one of them, or of the whole unit where there are none', async () => {
    const file = await unitFile('planned.json', planned);
    const { answer } = await command('steps', file);
    const steps = answer.steps as { readonly id: string; readonly say: string; readonly needs: string[] }[];
    expect(steps.map((s) => s.id)).toEqual(
      expect.arrayContaining(['safe', 'out:m1.0', 'do:m1.0', 'power:limit']),
    );
    expect((await command('steps', file, '--change', 'm1')).answer).toEqual(answer);
    const whole = await command('steps', await unitFile('plain.json', divider));
    expect(JSON.stringify(whole.answer)).toContain('do:R3');
    expect((await command('steps', file, '--whole')).answer).not.toEqual(answer);
    expect(await command('steps', file, '--change', 'm9')).toMatchObject({
      code: 2,
      sentence: expect.stringContaining('There is no change "m9"'),
    });
  });
});

describe('wiring', () => {
  it('names what is missing and what joins nets, with every lug from behind', async () => {
    const file = await unitFile('wired.json', {
      ...divider,
      wires: [
        { id: 'w1', colour: 'red', from: 'V1.plus', to: 'board.vcc' },
        { id: 'w2', colour: 'black', from: 'V1.minus', to: 'board.out' },
      ],
    });
    const { code, answer } = await command('wiring', file);
    expect(code).toBe(0);
    expect(answer).toMatchObject({
      ok: false,
      problems: [{ code: 'joins-nets', wires: ['w2'] }, {}],
      wires: [{ id: 'w1', net: 'vcc' }, {}],
      parts: [{ ref: 'V1', lugs: [{ pin: 'plus' }, { pin: 'minus' }] }],
    });
    const odd = await unitFile('odd-wire.json', { ...divider, wires: [{ id: 'w', from: '', to: 'x' }] });
    expect(await command('wiring', odd)).toMatchObject({
      code: 2,
      sentence: expect.stringContaining('two ends'),
    });
  });
});
