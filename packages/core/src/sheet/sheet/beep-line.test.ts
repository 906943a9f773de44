import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { untracedNets, type Part } from '../../circuit/circuit/index.ts';
import type { Traceable } from '../../circuit/continuity/index.ts';
import { formatBeepLine, parseTraceLine } from './beep-line.ts';

const partsOf = (...lines: readonly string[]): Part[] =>
  lines.flatMap((line) => {
    const read = parseTraceLine(line, { ground: '0', parts: [] });
    if (!read.ok || read.kind !== 'parts') throw new Error(line);
    return read.parts;
  });
const board: Traceable = {
  ground: '0',
  parts: partsOf('R1 1k', 'R9 470', 'C3 100n', 'C4 10u electrolytic', 'Q2 2N3904', 'U1 TL072', 'J1 jack'),
};
const beepOf = (line: string) => {
  const read = parseTraceLine(line, board);
  return read.ok && read.kind === 'beep' ? formatBeepLine(read.beep) : read;
};

describe('a line of tracing', () => {
  it('is a part without nets, each pin on a net of its own', () => {
    expect(parseTraceLine('R7 47k', board)).toMatchObject({
      kind: 'parts',
      parts: [{ ref: 'R7', marked: 47e3, pins: { a: 'R7a', b: 'R7b' }, saidPins: {} }],
    });
    expect(partsOf('J2 jack tip=in ring')[0]).toMatchObject({
      kind: 'jack',
      pins: { tip: 'in', sleeve: 'J2sleeve', ring: 'J2ring' },
      saidPins: { tip: 'in' },
    });
    expect(partsOf('J1 jack')[0]!.pins).toEqual({ tip: 'J1tip', sleeve: 'J1sleeve' });
    expect(partsOf('X1 box 1 2 out')[0]).toMatchObject({ kind: 'box', pins: { '1': 'X11', out: 'X1out' } });
    // Pins of a module may be called anything, and are still left to beeping.
    const [odd] = partsOf('X2 box constructor valueOf');
    expect(untracedNets({ ground: '0', parts: [odd!] })).toEqual(['X2constructor', 'X2valueOf']);
    expect(partsOf('U2 555')).toMatchObject([{ ref: 'U2', kind: 'timer555' }]);
    expect(partsOf('U3 LM324').map((p) => p.ref)).toEqual(['U3A', 'U3B', 'U3C', 'U3D']);
    expect(partsOf('U4 TL072 3=in 8=vcc').map((p) => p.saidPins)).toEqual([
      { plus: 'in', vplus: 'vcc' },
      { vplus: 'vcc' },
    ]);
    expect(partsOf('U3 NE5532')[1]!.pins).toMatchObject({ out: 'U3Bout' });
  });

  it('is a beep between pins by number, name, sign and package, and nets by name', () => {
    expect(beepOf('C3.1 Q2.b')).toBe('C3.a Q2.b');
    expect(beepOf('U1.8 R9.a C4+')).toBe('U1A.vplus R9.a C4.a');
    expect(beepOf('tip R1.1')).toBe('J1.tip R1.a');
    expect(beepOf('U1.4 # gnd')).toBe('U1A.vminus # 0');
    expect(beepOf('U1.7#R1.2 in')).toBe('U1B.out # R1.b in');
    expect(beepOf('C3.2 | R1.a Q2.c')).toBe('C3.b | R1.a Q2.c');
    // The name under which a net is shown is that net.
    expect(beepOf('C3.1 Q2b')).toBe('C3.a Q2.b');
    expect(beepOf('R1.1 vcc')).toBe('R1.a U1A.vplus');
    expect(beepOf('R1.1 # U1Avplus')).toBe('R1.a # U1A.vplus');
  });

  it('is refused with what is wrong of it', () => {
    const why = (line: string) => {
      const read = parseTraceLine(line, board);
      return read.ok ? '' : read.problem.message;
    };
    expect(why('C3.1 Q7.b')).toMatch(/Q7/);
    expect(why('C3.1 R1')).toMatch(/R1 alone is no pin: write R1.a, R1.b/);
    // A name that every object has is no pin of the jack: it is the name of a net.
    expect(beepOf('constructor R1.1')).toBe('constructor R1.a');
    expect(why('C3.1')).toMatch(/what it beeps with is missing/);
    expect(why('C3.1 R1.a # R9.a')).toMatch(/One pin stands before/);
    expect(why('C3.1 "x"')).toMatch(/neither a pin nor a name/);
    expect(why('R7 banana')).toMatch(/R7: "banana" is neither a value, a type nor a kind/);
    expect(why('J2 jack banana')).toMatch(/banana/);
    expect(why('')).toMatch(/empty/);
  });

  it('reads back as it was', () => {
    const pins = board.parts.flatMap((p) => Object.keys(p.pins).map((pin) => `${p.ref}.${pin}`));
    const ends = fc.uniqueArray(fc.constantFrom(...pins, '0', 'out'), { minLength: 2, maxLength: 6 });
    fc.assert(
      fc.property(ends, fc.constantFrom('together', 'apart', 'one of'), (all, says) => {
        fc.pre(all.some((end) => end.includes('.')));
        const beep = { says, ends: all } as const;
        const read = parseTraceLine(formatBeepLine(beep), board);
        expect(read).toEqual({ ok: true, kind: 'beep', beep });
      }),
    );
  });

  it('never throws, whatever is typed', () => {
    fc.assert(fc.property(fc.string(), (line) => void parseTraceLine(line, board)));
  });
});
