import { larkDiscPreamp, droverOverdrive, heronAutopan } from '@zemble/demo';
import { parseSheetLine, type UnitDocument } from '@zemble/core';
import { describe, expect, it } from 'vitest';
import { deepAnalysis, type DeepKind } from './deep.ts';
import { analyse, analyseSlowly, search } from './engine.ts';

function documentOf(lines: string, readouts: UnitDocument['readouts'] = []): UnitDocument {
  const parts = lines.split('\n').map((line) => {
    const read = parseSheetLine(line);
    if (!read.ok) throw new Error(read.problem.message);
    return read.part;
  });
  return { unit: {}, circuit: { ground: '0', parts }, readouts };
}

describe('analyse', () => {
  it('gives quick readouts, volts and the response of every layer; slow readouts follow apart', () => {
    const { document } = droverOverdrive;
    const { rows, layers, frequencyHz } = analyse({ document, response: { from: 'in', to: 'd' } });
    const quick = rows.map((r) => r.id);
    expect(quick).toContain('drive');
    expect(quick).not.toContain('bite');
    expect(layers.marked.volts!.vb).toBeCloseTo(4.5, 1);
    expect(layers.marked.gainDb).toHaveLength(frequencyHz.length);
    const slow = analyseSlowly(document);
    expect(slow.map((r) => r.id)).toEqual(['bite', 'clean', 'tone']);
    expect(slow[0]!.answers.marked).toMatchObject({ ok: true });
  });

  it('computes a layer without values of its own as the one before', () => {
    const { layers } = analyse({ document: larkDiscPreamp.document, response: { from: 'inL', to: 'outL' } });
    expect(layers.proven).toEqual(layers.marked);
  });

  it('answers a circuit that cannot be computed with its reason, on every layer', () => {
    const document = documentOf('C1 1u b 0\nC2 1u b 0', [{ id: 'v', name: 'v', kind: 'voltage', net: 'b' }]);
    const { rows, layers } = analyse({ document, response: null });
    expect(layers.found.volts).toBeNull();
    expect(layers.found.reason).toMatch(/Net b has no DC path to ground/);
    const answer = rows[0]!.answers.found;
    expect(!answer.ok && answer.problem.message).toMatch(/no DC path/);
  });

  it('answers a half-typed circuit, too', () => {
    const half = {
      ...documentOf('R1 1k a 0'),
      circuit: { ground: '0', parts: [{ ref: 'R1', kind: 'resistor' as const, pins: { a: 'a' } }] },
    };
    expect(analyse({ document: half, response: null }).layers.marked.reason).toBeTruthy();
    expect(
      analyse({ document: { ...half, circuit: { ground: '0', parts: [] } }, response: null }).layers.marked
        .volts,
    ).toBeNull();
  });
});

describe('search', () => {
  it('hands a refusal over as a sentence', () => {
    const { document } = larkDiscPreamp;
    const outcome = search(
      {
        circuit: document.circuit,
        readouts: document.readouts,
        layer: 'planned',
        goals: [{ readoutId: 'gainL', want: { target: 30, within: 1 } }],
        may: [],
        series: 'E24',
        withPairs: true,
        most: 3,
      },
      () => undefined,
    );
    expect(outcome).toEqual({ ok: false, sentence: 'No part was chosen that may change.' });
  });
});

describe('deepAnalysis', () => {
  const ask = (kind: DeepKind, document: UnitDocument, from: string, to: string) => {
    const told: number[] = [];
    const answer = deepAnalysis(
      { kind, document, layer: 'marked', from, to, readoutId: document.readouts[0]?.id ?? '' },
      (f) => told.push(f),
    );
    return { answer, told };
  };

  it('shades where nine of ten units lie, with its progress told', () => {
    const divider = documentOf('G1 1V in 0\nR1 1k 5% in out\nR2 1k 5% out 0');
    const { answer, told } = ask('spread', divider, 'in', 'out');
    const [low, high] = answer.series;
    expect(high!.y[0]!).toBeGreaterThan(-6.02);
    expect(low!.y[0]!).toBeLessThan(-6.02);
    // Worst case: 20 log10 of 1.05/2 against 0.95/2.
    expect(high!.y[0]! - low!.y[0]!).toBeLessThan(20 * Math.log10(1.05 / 0.95));
    expect(told.at(-1)).toBe(1);
  });

  it('says which part moves a readout, and how far', () => {
    // A divider of two: V = 10 R2/(R1 + R2), 0.025 V for a per cent of either.
    const divider = {
      ...documentOf('V1 10V vcc 0\nR1 1k 5% vcc a\nR2 1k 5% a 0'),
      readouts: [{ id: 'v', name: 'Middle', kind: 'voltage' as const, net: 'a' }],
    };
    const { answer } = ask('parts', divider, 'vcc', 'a');
    expect(answer.slopes!.map((s) => [s.ref, Number(s.perPercent.toFixed(6))])).toEqual([
      ['R1', -0.025],
      ['R2', 0.025],
    ]);
    expect(answer.sentence).toBe('Middle: R1 moves it most, −25 mV for each per cent it is high.');
  });

  it('says how loud the noise is and who makes it', () => {
    const { answer } = ask('noise', documentOf('G1 1V in 0\nR1 100k in out\nR2 1M out 0'), 'in', 'out');
    expect(answer.sentence).toMatch(/µV A-weighted at out.*R1 91 % and R2 9 %/);
  });

  it('says what is stable, what rings and what oscillates', () => {
    expect(ask('stability', documentOf('G1 1V in 0\nR1 1k in a\nC1 1u a 0'), 'in', 'a').answer.sentence).toBe(
      'It is stable, and nothing in it rings.',
    );
    expect(
      ask('stability', documentOf('G1 1V in 0\nR1 25 in a\nL1 10m a b\nC1 100n b 0'), 'in', 'b').answer
        .sentence,
    ).toMatch(/rings most at 5\.03 kHz, Q 12\.6/);
    expect(ask('stability', heronAutopan.document, 'in', 'outL').answer.sentence).toMatch(
      /^This oscillates: it starts at about 1\.\d+ Hz/,
    );
  });

  it('follows the output after switch-on until it rests', () => {
    const { answer } = ask(
      'switch-on',
      documentOf('V1 10V vcc 0\nR1 1k vcc a\nR2 1k a 0\nC1 1u a out\nR3 100k out 0\nG1 1V in 0\nR4 1k in 0'),
      'in',
      'out',
    );
    expect(answer.sentence).toMatch(
      /Peaks at 4\.\d+ V after switch-on, then rests|Peaks at 5 V after switch-on, then rests/,
    );
    expect(answer.series[0]!.x.length).toBeLessThanOrEqual(1202);
  });

  it('answers what cannot be computed with its sentence', () => {
    const { answer } = ask('noise', documentOf('C1 1u b 0\nC2 1u b 0'), 'b', 'b');
    expect(answer).toMatchObject({ ok: false, series: [], sentence: expect.stringContaining('no DC path') });
  });
});
