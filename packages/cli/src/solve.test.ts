import { describe, expect, it } from 'vitest';
import { command, divider, resistor, unitFile } from './testing/command.ts';

interface Answer {
  readonly changes: readonly {
    readonly ref: string;
    readonly value: number;
    readonly places?: readonly unknown[];
  }[];
  readonly inside: boolean;
  readonly missBy?: number;
  readonly goals: readonly { readonly id: string; readonly value: number | null; readonly missBy: number }[];
  readonly yield?: number;
}
const best = (answer: Record<string, unknown>) => (answer.proposals as Answer[])[0]!;

/** A stage with two goals that two resistors set: 20 dB, and 47 kohm to the source. */
const twoGoals = {
  format: 'zemble/unit',
  version: 1,
  circuit: {
    ground: '0',
    parts: [
      { ref: 'V1', kind: 'supply', pins: { plus: 'vp', minus: '0' }, marked: 15 },
      { ref: 'V2', kind: 'supply', pins: { plus: '0', minus: 'vm' }, marked: 15 },
      { ref: 'G1', kind: 'signal', pins: { plus: 'in', minus: '0' }, marked: '10m' },
      resistor('R1', '10k', 'in', 'm'),
      resistor('R3', '10k', 'm', 'out'),
      {
        ref: 'U1',
        kind: 'opamp',
        model: 'TL072',
        pins: { plus: '0', minus: 'm', out: 'out', vplus: 'vp', vminus: 'vm' },
      },
    ],
  },
  readouts: [
    {
      id: 'gain',
      name: 'Gain',
      kind: 'gain',
      from: 'in',
      to: 'out',
      frequencyHz: 1000,
      want: { target: 20, within: 0.4 },
    },
    {
      id: 'zin',
      name: 'In',
      kind: 'inputImpedance',
      source: 'G1',
      frequencyHz: 1000,
      want: { min: 45_000, max: 49_000 },
    },
    { id: 'free', name: 'Out', kind: 'voltage', net: 'out' },
  ],
};

describe('solve', () => {
  it('brings the one readout that has a wanted range into it', async () => {
    const { answer } = await command(
      'solve',
      await unitFile('e.json', divider),
      '--may',
      'R1',
      '--series',
      'E24',
      '--most',
      '3',
    );
    expect(best(answer)).toMatchObject({ missBy: 0, changes: [{ ref: 'R1', value: 2000 }] });
  });

  it('takes every readout with a wanted range as a goal, and is inside when all are', async () => {
    const { answer } = await command('solve', await unitFile('two.json', twoGoals));
    expect(answer).toMatchObject({
      complete: true,
      goals: [
        { id: 'gain', unit: 'dB' },
        { id: 'zin', unit: 'ohm' },
      ],
    });
    expect(answer.readout).toBeUndefined();
    const found = best(answer);
    expect(found.inside).toBe(true);
    expect(found.goals.map((g) => g.missBy)).toEqual([0, 0]);
    // -R3/R1 with R1 as the input impedance: 47k and ten times that.
    const valueOf = (ref: string) => found.changes.find((c) => c.ref === ref)!.value;
    expect(valueOf('R1')).toBe(47_000);
    expect(valueOf('R3') / 470_000).toBeCloseTo(1, 1);
    expect(found.yield).toBeGreaterThan(0);
  });

  it('keeps what it is told to keep, and says where there is nothing to keep', async () => {
    const path = await unitFile('keep.json', twoGoals);
    const kept = await command('solve', path, '--readout', 'gain', '--keep', 'zin', '--may', 'R1,R3');
    expect(best(kept.answer).changes.map((c) => c.ref)).toEqual(['R3']);
    const none = await command('solve', path, '--readout', 'gain', '--keep', 'nothing');
    expect([none.code, none.sentence]).toEqual([2, expect.stringContaining('no such readout to keep')]);
  });

  it('takes from the drawer first, and says which line of it cannot be read', async () => {
    const path = await unitFile('drawer.json', twoGoals);
    const drawer = await unitFile(
      'drawer.csv',
      'kind,value,count,place\nresistor,48k,3,A1\nresistor,470k,2,A2\n',
    );
    const { answer } = await command('solve', path, '--drawer', drawer);
    expect(best(answer).changes).toMatchObject([
      { ref: 'R1', value: 48_000, places: ['A1'] },
      { ref: 'R3', value: 470_000, places: ['A2'] },
    ]);
    const bad = await unitFile('bad.csv', 'kind,value\nflux,1k\n');
    const refused = await command('solve', path, '--drawer', bad);
    expect(refused.code).toBe(2);
    expect(refused.sentence).toMatch(/bad\.csv.*line 2: "flux" is no kind of part/);
    expect((await command('solve', path, '--drawer', 'none.csv')).sentence).toContain(
      'none.csv cannot be read',
    );
  });

  it('counts a wish, but does not insist on it', async () => {
    const readouts = twoGoals.readouts.map((r) => (r.id === 'zin' ? { ...r, want: { max: 1, wish: 2 } } : r));
    const { answer } = await command(
      'solve',
      await unitFile('wish.json', { ...twoGoals, readouts }),
      '--may',
      'R3',
    );
    expect(best(answer)).toMatchObject({ inside: true, changes: [{ ref: 'R3', value: 100_000 }] });
    const wrong = await unitFile('wrong.json', {
      ...twoGoals,
      readouts: [{ ...twoGoals.readouts[0], want: { target: 20, within: 1, wish: -3 } }],
    });
    expect((await command('solve', wrong)).sentence).toContain('weight of a wish');
  });
});
