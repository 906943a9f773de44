import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { formatSheetLine } from './format-line.ts';
import { parseSheetLines } from './sheet-lines.ts';

const BLANK = { ground: '0', parts: [] };
const refsOf = (text: string) => {
  const { parts, refused } = parseSheetLines(text, BLANK);
  return { read: parts.map((p) => p.ref), refused: refused.map((r) => r.line) };
};

describe('a list of parts that is pasted', () => {
  it('is as many parts, whatever its lines end with and begin with', () => {
    const list = 'V1 9V vcc gnd\r\n- R1 470k vcc b\n2) R2\t100k  b gnd\r\n\r\n# the output\n• C1 10u c out\n';
    expect(refsOf(list)).toEqual({ read: ['V1', 'R1', 'R2', 'C1'], refused: [] });
    const { parts } = parseSheetLines(list, BLANK);
    // Ground is the ground, in every line.
    expect(parts.flatMap((p) => Object.values(p.pins)).filter((n) => n === '0')).toHaveLength(2);
  });

  it('keeps what cannot be read as lines, each with its reason, and reads the rest', () => {
    const { parts, refused } = parseSheetLines(
      'R1 10k a b\nR2 47q b 0\nQ1 2N3904 c b\nR1 22k c 0\nC1 1u c out',
      BLANK,
    );
    expect(parts.map((p) => p.ref)).toEqual(['R1', 'C1']);
    expect(refused.map((r) => r.line)).toEqual(['R2 47q b 0', 'Q1 2N3904 c b', 'R1 22k c 0']);
    expect(refused[0]!.problem.message).toContain('47q');
    expect(refused[2]!.problem.message).toContain('in the list already');
  });

  it('refuses by itself what no record keeps, and a designator that differs in its case only', () => {
    const { parts, refused } = parseSheetLines(
      'R1 10k a\u0000 b\nR2 1k a b\nr2 2k a 0\n__proto__ 1k a b',
      BLANK,
    );
    expect(parts.map((p) => p.ref)).toEqual(['R2']);
    expect(refused.map((r) => r.line)).toEqual(['R1 10k a b', 'r2 2k a 0', '__proto__ 1k a b']);
  });

  it('knows the nets of the circuit that it goes into', () => {
    const known = { ground: 'chassis', parts: [] };
    expect(parseSheetLines('R1 10k a gnd', known).parts[0]!.pins).toEqual({ a: 'a', b: 'chassis' });
  });

  it('reads what was written, part for part', () => {
    const value = fc.constantFrom('10k', '4k7', '330', '1M', '47 ohm');
    fc.assert(
      fc.property(fc.array(fc.tuple(value, fc.nat(9), fc.nat(9)), { maxLength: 30 }), (rows) => {
        const lines = rows.map(([v, a, b], i) => `R${i + 1} ${v} n${a} m${b}`);
        const { parts, refused } = parseSheetLines(lines.join('\n'), BLANK);
        expect(refused).toEqual([]);
        expect(parseSheetLines(parts.map(formatSheetLine).join('\n'), BLANK).parts).toEqual(parts);
      }),
      { numRuns: 50 },
    );
  });
});
