import type { EvidenceData, PathData } from '@zemble/contract';
import { describe, expect, it } from 'vitest';
import { circuitOf } from '../../testing/circuits.ts';
import { drill } from './drill.ts';
import { readEvidence } from './evidence.ts';
import { addPathLine } from './path-line.ts';
import { checkPath, preparePath } from './path.ts';
import { searchState } from './search.ts';

/** A path as it is typed, line by line. */
function typed(...lines: string[]): PathData {
  let path: PathData | null = null;
  for (const line of lines) {
    const result = addPathLine(path, line);
    if (!result.ok) throw new Error(result.problem.message);
    path = result.path;
  }
  return path!;
}

const BUS = typed(
  'Main controller > Sound controller',
  'Sound controller > Synth chip > Mixing stage > Power stage > Speaker',
  'Sound controller > Sampler A > Mixing stage',
  'Sound controller > Sampler B > Mixing stage',
  'clock: Crystal > Sound controller',
  'data: Sound controller > Address decoder > Work memory > Sound controller',
  'data: Program memory > Sound controller',
  'supply: Five volts > Main controller, Sound controller, Synth chip, Sampler A, Sampler B, Address decoder, Work memory, Program memory',
);
const idOf = (name: string) => BUS.blocks.find((b) => b.name === name)!.id;
const seen = (where: string, saw: string): EvidenceData => {
  const [from, to] = where.split(' > ') as [string, string | undefined];
  const at = to === undefined ? idOf(from) : `${idOf(from)}->${idOf(to)}`;
  return { at, saw: saw as EvidenceData['saw'], conditions: ['probe proved'] };
};
const searched = (evidence: EvidenceData[], data = BUS) =>
  searchState(preparePath(data), {
    unit: { name: 'bus' },
    circuit: circuitOf('V1 5V vcc 0\nR1 1k vcc 0'),
    readouts: [],
    path: data,
    evidence,
  } as never);
const first = (evidence: EvidenceData[], data = BUS) => {
  const state = searched(evidence, data);
  const [suspect] = state.suspects;
  return { name: data.blocks[suspect!.block]!.name, ...suspect!, state };
};

describe('a ring of blocks on a bus', () => {
  it('is searched: pulses go in and the output floats, so it is the one that drives it', () => {
    const found = first([
      { ...seen('Speaker', 'good'), injectedAt: idOf('Power stage') },
      seen('Sound controller > Synth chip', 'none'),
      seen('Sound controller > Sampler A', 'none'),
      seen('Crystal > Sound controller', 'pulsing'),
      seen('Program memory > Sound controller', 'pulsing'),
      seen('Sound controller > Address decoder', 'pulsing'),
      seen('Address decoder > Work memory', 'floating'),
    ]);
    expect(found.name).toBe('Address decoder');
    expect(found.alone).toBeGreaterThan(0.9);
    expect(found.state.contradictions).toEqual([]);
  });

  it('clears nobody round the ring for pulses that go on without him', () => {
    const pulses = searched([seen('Sound controller > Address decoder', 'pulsing')]);
    const chance = (name: string) => pulses.suspects.find((s) => BUS.blocks[s.block]!.name === name)!.alone;
    expect(chance('Crystal')).toBeLessThan(0.02);
    expect(chance('Work memory')).toBeGreaterThan(chance('Program memory'));
  });

  it('has one dead output of several as a fault of its own', () => {
    const fan = typed('A, processor', 'data: A > B', 'data: A > C', 'data: A > D', 'clock: E > A');
    const at = (to: string, saw: 'none' | 'good') => ({ at: `a->${to}`, saw, conditions: ['probe proved'] });
    const found = first([at('b', 'none'), at('b', 'none'), at('c', 'good'), at('d', 'good')], fan);
    expect(found.name).toBe('A');
    expect(found.alone).toBeGreaterThan(0.7);
    expect(found.state.contradictions).toEqual([]);
    expect(found.state.posterior.outputs[found.block]![0]).toBeGreaterThan(0.95);
  });

  it('gives chances that add up: of each block alone, and of pairs', () => {
    const { suspects, posterior } = searched([seen('Sound controller > Synth chip', 'none')]);
    const alone = suspects.reduce((sum, s) => sum + s.alone, 0);
    const pairs = posterior.pairs.reduce((sum, p) => sum + p.probability, 0);
    expect(alone + pairs).toBeGreaterThan(0.99);
    expect(alone + pairs).toBeLessThanOrEqual(1 + 1e-9);
  });

  it('of two blocks is drilled as any other: one test tells them apart', () => {
    const ring = typed('data: Counter > Latch', 'data: Latch > Counter');
    const played = drill(preparePath(ring), { wrong: 0, random: () => 0.5 });
    expect(played).toMatchObject({ foundShare: 1, meanTests: 1 });
  });
});

describe('what is said of blocks', () => {
  const supply = typed('A, stage', 'B, stage', 'C, stage', 'supply: Adapter > A, B, C');
  const at = (saw: string, conditions: string[] = []): EvidenceData => ({
    at: 'adapter->a',
    saw: saw as EvidenceData['saw'],
    conditions: ['probe proved', ...conditions],
  });

  it('a weak supply is a low one', () => {
    const of = (word: string) =>
      searched([at(word), at('high', ['disconnected: a'])], supply).suspects.map((s) => [s.block, s.alone]);
    expect(of('weak')).toEqual(of('low'));
    expect(first([at('weak'), at('high', ['disconnected: a'])], supply).name).toBe('A');
  });

  it('a block that is not there cannot be disconnected, and a kind that is none is refused', () => {
    const { ignored } = readEvidence(preparePath(supply), [at('high', ['disconnected: zz'])]);
    expect(ignored[0]!.reason).toBe('there is no block "zz" to disconnect; the blocks are a, b, c, adapter');
    const odd = { ...supply, blocks: supply.blocks.map((b, i) => (i === 3 ? { ...b, kind: 'gizmo' } : b)) };
    expect(checkPath(odd)[0]!.message).toContain('"gizmo" is no kind of block');
    expect(addPathLine(supply, 'D, gizmo')).toMatchObject({ ok: false });
  });

  it('a later answer at the same place replaces the earlier, but where the fault comes and goes', () => {
    const [bad, good] = [at('low'), at('high')];
    const plain = readEvidence(preparePath(supply), [bad, good]);
    expect(plain.observations.map((o) => o.seen)).toEqual(['good']);
    expect(plain.ignored).toEqual([
      { evidence: bad, reason: 'it was seen otherwise there later, which counts' },
    ]);
    const goes = readEvidence(preparePath(supply), [bad, good], { isIntermittent: true });
    expect(goes.observations).toHaveLength(2);
  });

  it('a question that was answered comes again only with its reason', () => {
    const { next } = searched([at('low')], supply);
    for (const { test, why } of next)
      expect(why.startsWith('Once more')).toBe(test.at === 'TP1' && test.conditions === undefined);
  });
});
