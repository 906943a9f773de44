import { evaluateReadout, AnalysisSession, readUnitFile, resolveLayer, type Readout } from '@zemble/core';
import { describe, expect, it } from 'vitest';
import { command, resistor, unitFile } from './testing/command.ts';

/** A stage on one supply, its foot on a bias rail: 1 + R2/R1. */
const stage = {
  format: 'zemble/unit',
  version: 1,
  circuit: {
    ground: '0',
    parts: [
      { ref: 'V1', kind: 'supply', pins: { plus: 'vp', minus: '0' }, marked: 9 },
      { ref: 'V3', kind: 'supply', pins: { plus: 'vr', minus: '0' }, marked: 4.5 },
      { ref: 'G1', kind: 'signal', pins: { plus: 'in', minus: '0' }, marked: '10m' },
      { ref: 'C1', kind: 'capacitor', pins: { a: 'in', b: 'p' }, marked: '1u' },
      resistor('R9', '1M', 'p', 'vr'),
      resistor('R1', '1k', 'm', 'vr'),
      resistor('R2', '4k7', 'm', 'out'),
      {
        ref: 'U1',
        kind: 'opamp',
        model: 'TL072',
        pins: { plus: 'p', minus: 'm', out: 'out', vplus: 'vp', vminus: '0' },
      },
    ],
  },
};

describe('ways and way', () => {
  it('list what offers itself, and give a change whose promises anybody can compute', async () => {
    const file = await unitFile('stage.zemble.json', stage);
    const { answer: listed } = await command('ways', file, '--at', 'U1');
    const ways = listed.ways as {
      id: string;
      name: string;
      asks: { id: string; unit: string; given: number }[];
    }[];
    expect(ways.find((w) => w.id === 'gain-by-feedback')).toMatchObject({
      asks: [{ id: 'gain', unit: 'dB', given: expect.any(Number) }],
    });
    const made = await command(
      'way',
      file,
      '--at',
      'U1',
      '--id',
      'gain-by-feedback',
      '--answers',
      '{"gain":"6dB"}',
    );
    expect(made.code).toBe(0);
    const { change, promises } = made.answer as {
      change: { steps: unknown[] };
      promises: { readout: Readout; value: number; unit: string; is: string }[];
    };
    expect(change).toMatchObject({ purpose: 'modification', steps: [{ do: 'fit', ref: 'R2', value: 1000 }] });
    const read = readUnitFile(JSON.stringify({ ...stage, changes: [change] }));
    if (!read.ok) throw new Error(read.problems[0]!.message);
    const session = new AnalysisSession(resolveLayer(read.document.circuit, 'planned'));
    for (const { readout, value } of promises) {
      const answered = evaluateReadout(session, readout);
      expect(answered.ok && answered.value).toBeCloseTo(value, 6);
      expect(value).toBeCloseTo(20 * Math.log10(2), 2);
    }
  });

  it('say why not, with 1 where it cannot be and 2 where it was asked wrongly', async () => {
    const file = await unitFile('stage.zemble.json', stage);
    const way = (...more: string[]) => command('way', file, ...more);
    const low = await way('--at', 'U1', '--id', 'gain-by-feedback', '--answers', '{"gain":-6}');
    expect(low).toMatchObject({ code: 1, sentence: expect.stringContaining('was asked for') });
    expect(await way('--at', 'V1', '--id', 'gain-by-feedback')).toMatchObject({
      code: 1,
      sentence: expect.stringContaining('does not fit at V1'),
    });
    expect((await way('--at', 'nowhere', '--id', 'pad')).code).toBe(2);
    expect((await way('--at', 'U1', '--id', 'magic')).sentence).toContain('There is no way of doing "magic"');
    expect(
      (await way('--at', 'U1', '--id', 'gain-by-feedback', '--answers', '{"loud":1}')).sentence,
    ).toContain('"loud" is not asked here; asked are gain');
    expect((await way('--at', 'U1', '--id', 'gain-by-feedback', '--answers', '{')).code).toBe(2);
    // Ten or ten thousand: it is asked, and not guessed.
    const grouped = await way('--at', 'C1', '--id', 'pad', '--answers', '{"ohm":"10,000"}');
    expect(grouped).toMatchObject({ code: 2, sentence: expect.stringContaining('may be 10 or 10000') });
  });

  it('ask of the hum of the mains that is here', async () => {
    const file = await unitFile('stage-60.zemble.json', stage);
    const humAt = async (...mains: string[]) => {
      const { answer } = await command('ways', file, '--at', 'V1', ...mains);
      const ways = answer.ways as { id: string; asks: { id: string; given: number }[] }[];
      return ways.find((w) => w.id === 'supply-cell')!.asks.find((a) => a.id === 'hz')!.given;
    };
    expect(await humAt()).toBe(100);
    expect(await humAt('--mains', '60')).toBe(120);
    expect(await command('ways', file, '--at', 'V1', '--mains', '400')).toMatchObject({
      code: 2,
      sentence: '--mains is 50 or 60, not "400".',
    });
  });
});
