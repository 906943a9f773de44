import type { PathData } from '@zemble/contract';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { circuitOf } from '../../testing/circuits.ts';
import { checkPath } from './path.ts';
import { addPathLine, withoutBlock, withoutLink } from './path-line.ts';

function typed(...lines: string[]) {
  return lines.reduce<ReturnType<typeof added>>((path, line) => added(path, line), null!);
}
function added(path: Parameters<typeof addPathLine>[0], line: string) {
  const result = addPathLine(path, line);
  if (!result.ok) throw new Error(result.problem.message);
  return result.path;
}
const sentence = (line: string, ...before: string[]) => {
  const result = addPathLine(before.length > 0 ? typed(...before) : null, line);
  return result.ok ? result.words : result.problem.message;
};

describe('a line of the path', () => {
  it('links blocks one after the other and makes those that are new, with the kind their name speaks of', () => {
    const path = typed('Microphone > Talk switch > First stage > Speaker');
    expect(path.blocks.map((b) => [b.id, b.kind])).toEqual([
      ['microphone', 'microphone'],
      ['talk-switch', 'switch'],
      ['first-stage', 'stage'],
      ['speaker', 'speaker'],
    ]);
    expect(path.testPoints!.map((t) => [t.id, t.name])).toEqual([
      ['TP1', 'Microphone to Talk switch'],
      ['TP2', 'Talk switch to First stage'],
      ['TP3', 'First stage to Speaker'],
    ]);
  });

  it('takes the last words of a name for its kind, before what is said more of it', () => {
    const kindOf = (line: string) => typed(line).blocks[0]!.kind;
    expect(kindOf('Controller supply')).toBe('supply');
    expect(kindOf('Headphone socket with switch')).toBe('socket');
    expect(kindOf('Tone control')).toBe('tone control');
    expect(kindOf('Microphone preamplifier')).toBe('stage');
    expect(kindOf('Supply of the mixer')).toBe('supply');
    expect(kindOf('Left power amplifier')).toBe('power amplifier');
    expect(kindOf('Contraption')).toBeUndefined();
  });

  it('says what links carry, with several blocks at one station', () => {
    const path = typed('First stage > Driver', 'supply: Adapter > first stage, Driver');
    expect(path.links.filter((l) => l.carries === 'supply')).toEqual([
      { from: 'adapter', to: 'first-stage', carries: 'supply' },
      { from: 'adapter', to: 'driver', carries: 'supply' },
    ]);
    expect(sentence('supply: Adapter > Driver', 'Driver, stage')).toBe('1 link of supply; new: Adapter');
  });

  it('adds a block of a kind, and changes the kind of one that is there', () => {
    expect(typed('Driver, stage').blocks[0]).toMatchObject({ id: 'driver', kind: 'stage' });
    expect(typed('Driver', 'Driver, valve stage').blocks).toMatchObject([{ kind: 'valve stage' }]);
  });

  it('says what is wrong, and where', () => {
    expect(sentence('light: a > b')).toContain('"light" is not what a link carries');
    expect(sentence('a >')).toContain('an end of the chain is missing');
    expect(sentence('audio: a')).toContain('A link has two ends');
    expect(sentence('a > b', 'a > b')).toContain('there already');
    expect(sentence('')).toContain('empty');
  });

  it('takes out a block with its links and points, or one link', () => {
    const path = typed('a > b > c');
    expect(withoutBlock(path, 'b')).toMatchObject({ links: [], testPoints: [] });
    const cut = withoutLink(path, path.links[0]!);
    expect(cut.links).toHaveLength(1);
    expect(cut.testPoints!.map((t) => t.id)).toEqual(['TP2']);
  });

  it('never makes a path that cannot be searched, whatever is typed', () => {
    const line = fc.oneof(
      fc.string({ maxLength: 40 }),
      fc
        .array(fc.constantFrom('a', 'b', 'stage', '>', ',', 'supply:', 'x y', '→'), { maxLength: 9 })
        .map((w) => w.join(' ')),
    );
    fc.assert(
      fc.property(fc.array(line, { maxLength: 8 }), (lines) => {
        let path = null as Parameters<typeof addPathLine>[0];
        for (const text of lines) {
          const result = addPathLine(path, text);
          if (result.ok) path = result.path;
          else expect(result.problem.message).not.toBe('');
        }
        if (path) expect(checkPath(path)).toEqual([]);
      }),
    );
  });

  it('names a point as the others are named, with its net where both blocks share one', () => {
    const circuit = circuitOf('V1 9V vcc 0\nC1 100n in b1\nQ1 2N3904 vcc b1 e1\nR1 1k e1 0\nC2 1u e1 out');
    const path: PathData = {
      blocks: ['C1', 'Q1', 'C2'].map((id) => ({ id, parts: [id] })),
      links: [{ from: 'Q1', to: 'C2', carries: 'audio' }],
      testPoints: [{ id: 'Q1->C2', link: ['Q1', 'C2'], net: 'e1' }],
    };
    const result = addPathLine(path, 'C1 > Q1', circuit);
    expect(result.ok && result.path.testPoints!.at(-1)).toMatchObject({ id: 'C1->Q1', net: 'b1' });
  });
});
