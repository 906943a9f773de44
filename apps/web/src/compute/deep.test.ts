import {
  AnalysisSession,
  resolveLayer,
  transfer,
  magnitude,
  noiseAt,
  ratioToDb,
  searchQuantities,
} from '@zemble/core';
import { larkDiscPreamp, wrenTalkback } from '@zemble/demo';
import { describe, expect, it } from 'vitest';
import { deepAnalysis, SPREAD_RUNS, spreadBand, spreadRuns, type DeepRequest } from './deep.ts';
import { searchAmongParts, searchOf, partsShare } from './finding.ts';

const request = (kind: DeepRequest['kind']): DeepRequest => ({
  kind,
  document: larkDiscPreamp.document,
  layer: 'marked',
  from: 'inL',
  to: 'outL',
  readoutId: larkDiscPreamp.document.readouts[0]!.id,
});
const quiet = () => undefined;

describe('what is computed when it is asked for', () => {
  it('spreads around the gain of the circuit, narrowest shares joined', () => {
    const shares = [1, 2].map((seed) => spreadRuns(request('spread'), seed, SPREAD_RUNS / 10, quiet));
    const band = spreadBand(shares);
    const model = new AnalysisSession(resolveLayer(larkDiscPreamp.document.circuit, 'marked'));
    const [low, high] = band.series as [(typeof band.series)[0], (typeof band.series)[0]];
    low.x.forEach((f, i) => {
      const gain = ratioToDb(magnitude(transfer(model, 'inL', 'outL', f)));
      expect(low.y[i]!).toBeLessThan(gain + 0.05);
      expect(high.y[i]!).toBeGreaterThan(gain - 0.05);
    });
    expect(band.sentence).toMatch(/within \d+\.\d dB/);
  });

  it('says the noise that the engine says, and where most of it comes from', () => {
    const answer = deepAnalysis(request('noise'), quiet);
    const model = new AnalysisSession(resolveLayer(larkDiscPreamp.document.circuit, 'marked'));
    const [most] = noiseAt(model, { out: 'outL' }).contributors;
    expect(answer.ok).toBe(true);
    expect(answer.sentence).toContain(most!.ref);
  });

  it('answers a sentence, not an error, where a circuit cannot be computed', () => {
    const parts = larkDiscPreamp.document.circuit.parts.map((p) =>
      p.ref === 'R104' ? { ...p, marked: null, found: null } : p,
    );
    const broken = { ...larkDiscPreamp.document, circuit: { ...larkDiscPreamp.document.circuit, parts } };
    for (const kind of ['noise', 'stability', 'spread'] as const) {
      const answer = deepAnalysis({ ...request(kind), document: broken }, quiet);
      expect(answer.ok).toBe(false);
      expect(answer.sentence).toContain('R104');
    }
  });
});

describe('a search in the workers', () => {
  const { document } = wrenTalkback;

  it('needs a path, and says so', () => {
    expect(searchOf({ ...larkDiscPreamp.document, path: undefined }, {})).toEqual({
      ok: false,
      sentence: 'There is no path yet.',
    });
    const twice = { ...document.path!, blocks: [...document.path!.blocks, document.path!.blocks[0]!] };
    expect(searchOf({ ...document, path: twice }, {}).ok).toBe(false);
    expect(searchOf(document, {}).ok).toBe(true);
  });

  it('makes a dictionary in shares that can be sent, and compares what was measured first', () => {
    const quantities = searchQuantities(document.circuit, [{ kind: 'dcv', net: 'vf' }]);
    expect(quantities[0]).toEqual({ kind: 'dcv', net: 'vf' });
    expect(new Set(quantities.map((q) => JSON.stringify(q))).size).toBe(quantities.length);
    const entries = [0, 1].flatMap((index) =>
      partsShare(
        { circuit: document.circuit, quantities, refs: ['C2', 'R1'], share: { index, of: 2 } },
        quiet,
      ),
    );
    expect(structuredClone(entries)).toEqual(entries);
    const { groups } = searchAmongParts(entries, quantities, [
      { quantity: { kind: 'dcv', net: 'vf' }, value: 0.002, isSure: true },
    ]);
    // Nothing of the supply behind R1: it is open, or C2 takes it all.
    expect(groups[0]!.members.map((m) => `${m.ref} ${m.mode}`)).toEqual(
      expect.arrayContaining(['C2 short', 'R1 open']),
    );
  });
});
