import { describe, expect, it } from 'vitest';
import { run } from './main.ts';
import { command, divider, fileOf, resistor, unitFile } from './testing/command.ts';

describe('zemble', () => {
  it('checks', async () => {
    const { code, answer } = await command('check', await unitFile('a.json', divider));
    expect(code).toBe(0);
    expect(answer).toMatchObject({
      ok: false,
      problems: [{ code: 'circuit/unknown-net', net: 'zz', message: expect.stringContaining('zz') }],
    });
  });

  it('computes the operating point on a layer', async () => {
    const path = await unitFile('b.json', divider);
    const marked = await command('op', path);
    expect(marked.answer).toMatchObject({
      nets: { 0: 0, a: expect.closeTo(5, 9) },
      parts: { R1: { current: expect.closeTo(5e-3, 12), power: expect.closeTo(25e-3, 12) } },
    });
    const found = await command('op', path, '--layer', 'found');
    expect(found.answer).toMatchObject({ nets: { a: expect.closeTo(7.5, 9) } });
  });

  it('computes the response relative to 1 V at the source', async () => {
    const path = await unitFile('c.json', divider);
    const { answer } = await command(
      'ac',
      path,
      '--source',
      'G1',
      '--out',
      'out',
      '--from',
      '100',
      '--to',
      '10k',
      '--per-decade',
      '1',
    );
    expect(answer.frequencyHz).toEqual([100, expect.closeTo(1000, 6), 10_000]);
    const db = (f: number) => -10 * Math.log10(1 + (2 * Math.PI * f * 1e-4) ** 2);
    expect(answer.magnitudeDb).toEqual([100, 1000, 10_000].map((f) => expect.closeTo(db(f), 9)));
  });

  it('answers every readout on every layer, null with a reason where there is none', async () => {
    const { answer } = await command('readouts', await unitFile('d.json', divider));
    const close = (value: number) => expect.closeTo(value, 9);
    expect(answer.readouts).toMatchObject([
      { id: 'va', unit: 'V', marked: close(5), found: close(7.5), planned: close(7.5), proven: close(7.5) },
      { id: 'bad', marked: null, reasons: { marked: expect.stringContaining('zz') } },
    ]);
  });

  it('computes noise, a run in time, poles and tolerance', async () => {
    const path = await unitFile('h.json', divider);
    const noise = await command(
      'noise',
      path,
      '--out',
      'out',
      '--source',
      'G1',
      '--weighting',
      'A',
      '--level',
      '1V',
    );
    expect(noise.answer).toMatchObject({
      totalV: expect.any(Number),
      inputReferredV: expect.any(Number),
      contributors: [{ ref: 'R3', share: expect.closeTo(1, 6) }],
    });
    const run = await command('transient', path, '--stop', '1ms', '--step', '0.1ms', '--out', 'out,a');
    expect((run.answer.timeS as number[]).length).toBe(11);
    expect((run.answer.nets as Record<string, number[]>).a!.at(-1)).toBeCloseTo(5, 9);
    const poles = await command('poles', path);
    expect(poles.answer).toMatchObject({
      stable: true,
      poles: [{ re: expect.closeTo(-1e4, 3), im: 0, frequencyHz: expect.closeTo(1591.55, 1), q: 0.5 }],
    });
    const tolerance = await command('tolerance', path, '--readout', 'va', '--runs', '2000', '--seed', '1');
    expect(tolerance.answer).toMatchObject({
      mean: expect.closeTo(5, 1),
      worst: { low: expect.closeTo(4.75, 6), high: expect.closeTo(5.25, 6) },
      yield: 0,
    });
    expect(tolerance.answer.contributions).toMatchObject([
      { share: expect.closeTo(0.5, 3) },
      { share: expect.closeTo(0.5, 3) },
      {},
      {},
    ]);
    const again = await command('tolerance', path, '--readout', 'va', '--runs', '2000', '--seed', '1');
    expect(again.answer).toEqual(tolerance.answer);
  });

  it('reads values and finds preferred ones', async () => {
    expect((await command('value', '4k7')).answer).toMatchObject({
      value: 4700,
      unit: 'ohm',
      kind: 'resistor',
    });
    expect((await command('value', '104', '--kind', 'capacitor')).answer).toMatchObject({
      value: 1e-7,
      unit: 'F',
    });
    expect((await command('value', 'red', 'red', 'red', 'gold')).answer).toMatchObject({ value: 2200 });
    expect((await command('preferred', '4.85k', '--series', 'E12')).answer).toMatchObject({
      nearest: 4700,
      series: [4700, 150],
      parallel: [12_000, 8200],
    });
  });

  it('helps with every verb and an example, and says its version', async () => {
    let out = '';
    const told = async (...args: string[]) => {
      out = '';
      const code = await run(args, { out: (text) => void (out += text), err: () => undefined });
      expect(code).toBe(0);
      return out;
    };
    const verbs = [...(await told('--help')).matchAll(/^ {2}([a-z]+) {2,}\S/gm)].map((m) => m[1]!);
    expect(verbs).toContain('solve');
    for (const verb of verbs)
      expect(await told(verb, '--help')).toMatch(new RegExp(`For example: zemble ${verb} `));
    expect(await told('--version')).toMatch(/^zemble \d+\.\d+\.\d+\n$/);
  });

  it.each([
    [[], /^Use: zemble/],
    [['op'], /^Name a unit file/],
    [['transient', 'x', '--out', 'a'], /cannot be read/],
    [['op', '/nowhere/x.json'], /cannot be read/],
    [['value', 'zzz'], /cannot be read as a value/],
    [['preferred', '1k', '--series', 'E7'], /not an E series/],
    [['value', '1k', '--colour', 'red'], /--colour is not an option/],
    [['value', '1k', '--kind'], /--kind needs a value/],
    [['constructor'], /^"constructor" is no verb/],
    [['toString', 'x'], /"toString"/],
    [['value', '1k', '--kind', 'constructor'], /constructor/],
    [['value', '1k', '--__proto__', 'x'], /is not an option/],
    [['value', '1k', '--kind', 'resistor', '--kind', 'capacitor'], /--kind.*(once|twice)/],
  ])('refuses %j with one sentence and exit 2', async (args, sentence) => {
    const result = await command(...args);
    expect(result.code).toBe(2);
    expect(result.sentence).toMatch(sentence);
    expect(result.sentence.split('\n')).toHaveLength(1);
  });

  it.each([
    [['--seed', '1.5'], /--seed.*whole/],
    [['--seed', 'many'], /--seed.*whole/],
    [['--runs', '0'], /--runs/],
    [['--runs', '-3'], /--runs/],
    [['--distribution', 'toString'], /--distribution.*uniform.*normal/],
    [['--layer', 'constructor'], /--layer.*marked/],
  ])('refuses a spread with %j', async (args, sentence) => {
    const file = await unitFile('spread.json', divider);
    const result = await command('tolerance', file, '--readout', 'va', ...args);
    expect(result.code).toBe(2);
    expect(result.sentence).toMatch(sentence);
  });

  it('gives the same spread for the same seed, and another for another', async () => {
    const file = await unitFile('seeds.json', divider);
    const spread = async (seed: string) =>
      (await command('tolerance', file, '--readout', 'va', '--runs', '300', '--seed', seed)).answer.mean;
    expect(await spread('4')).toBe(await spread('4'));
    expect(await spread('4')).not.toBe(await spread('5'));
  });

  it('exits 1 with the net at fault when there is no answer', async () => {
    const floating = fileOf([
      { ref: 'C1', kind: 'capacitor', pins: { a: 'b', b: '0' }, marked: 1e-6 },
      { ref: 'C2', kind: 'capacitor', pins: { a: 'b', b: '0' }, marked: 1e-6 },
    ]);
    const { code, sentence } = await command('op', await unitFile('f.json', floating));
    expect(code).toBe(1);
    expect(sentence).toBe('Net b has no DC path to ground: only C1 and C2 touch it.');
  });

  it('names the place in a file that cannot be read', async () => {
    const { code, sentence } = await command(
      'check',
      await unitFile('g.json', '{"format":"zemble/unit","version":1,'),
    );
    expect(code).toBe(2);
    expect(sentence).toMatch(/g\.json: .*ends in the middle/);
  });

  it('says how far a per cent of each part moves a readout', async () => {
    const file = await unitFile('slopes.json', divider);
    const { answer } = await command('sensitivity', file, '--readout', 'va');
    // V = 10 R2/(R1 + R2): 25 mV a per cent of either.
    const slopes = answer.sensitivities as { ref: string; perPercent: number }[];
    expect(slopes.slice(0, 2).map((s) => [s.ref, Math.abs(s.perPercent).toFixed(4)])).toEqual(
      expect.arrayContaining([
        ['R1', '0.0250'],
        ['R2', '0.0250'],
      ]),
    );
    expect((await command('sensitivity', file, '--readout', 'no')).code).toBe(2);
  });

  it('shows what a meter would, in circuit', async () => {
    const file = await unitFile('meter.json', divider);
    const ohm = await command('meter', file, '--between', 'a,0', '--mode', 'ohm');
    expect(ohm.answer).toMatchObject({ unit: 'ohm', reading: expect.closeTo(1000, 3) });
    const found = await command('meter', file, '--between', 'a,0', '--mode', 'ohm', '--layer', 'found');
    expect(found.answer.reading).toBeCloseTo(3000, 2);
    const volt = await command('meter', file, '--between', 'a,0', '--mode', 'dcv', '--input-ohm', '1k');
    // 10 V over 1k and 1k in parallel with the meter's 1k.
    expect(volt.answer.reading).toBeCloseTo(10 / 3, 4);
    const open = await command('meter', file, '--between', 'in,a', '--mode', 'ohm');
    expect(open.answer).toMatchObject({ reading: null, overload: true });
    expect((await command('meter', file, '--between', 'a', '--mode', 'ohm')).sentence).toContain('two nets');
    expect((await command('meter', file, '--between', 'a,0', '--mode', 'watt')).code).toBe(2);
    expect((await command('meter', file, '--between', 'a,nowhere', '--mode', 'ohm')).code).toBe(2);
  });

  it('judges readings, one or a file of them', async () => {
    const file = await unitFile(
      'judge.json',
      fileOf([
        { ref: 'R7', kind: 'resistor', pins: { a: 'a', b: '0' }, marked: '100k', tolerance: 0.05 },
        { ref: 'R1', kind: 'resistor', pins: { a: 'a', b: 'b' }, marked: '220k', tolerance: 0.05 },
        { ref: 'R2', kind: 'resistor', pins: { a: 'b', b: '0' }, marked: '10k', tolerance: 0.05 },
        {
          ref: 'C1',
          kind: 'capacitor',
          pins: { a: 'b', b: '0' },
          marked: '470u',
          polarised: true,
          voltage: 25,
        },
        { ref: 'D1', kind: 'diode', pins: { a: 'c', k: '0' }, model: '1N4148' },
      ]),
    );
    const verdictsOf = async (...args: string[]) =>
      (await command('judge', file, ...args)).answer.verdicts as Record<string, unknown>[];
    // 100k in parallel with 220k + 10k reads 69.7k.
    expect(await verdictsOf('--part', 'R7', '--reading', '90k', '--in-circuit')).toEqual([
      {
        part: 'R7',
        verdict: 'out',
        between: { low: expect.closeTo(140e3, -4), high: expect.closeTo(154e3, -4) },
        sentence: expect.stringContaining('convicted in circuit'),
      },
    ]);
    expect(await verdictsOf('--part', 'R7', '--reading', '62k')).toMatchObject([{ verdict: 'out' }]);
    expect(await verdictsOf('--part', 'R7', '--reading', 'open', '--in-circuit')).toMatchObject([
      { verdict: 'out' },
    ]);
    expect(await verdictsOf('--part', 'C1', '--reading', '460u', '--esr', '5')).toMatchObject([
      { verdict: 'out', sentence: expect.stringMatching(/within 20 %; ESR 5 .*bad$/) },
    ]);
    const readings = await unitFile('readings.json', [
      { part: 'R7', reading: 69_700, inCircuit: true },
      { part: 'D1', reading: '0.6V' },
      { part: 'D1', reading: '0.58V', red: 'a' },
      { part: 'D1', reading: null, red: 'k' },
    ]);
    expect((await verdictsOf('--readings', readings)).map((v) => v.verdict)).toEqual([
      'in',
      'cannot-say',
      'in',
      'in',
    ]);
    const refused = async (...args: string[]) => {
      const { code, sentence } = await command('judge', file, ...args);
      expect(code).toBe(2);
      return sentence;
    };
    expect(await refused('--part', 'R9', '--reading', '1k')).toContain('R9');
    expect(await refused('--part', 'R7', '--reading', 'much')).toContain('"much"');
    expect(await refused('--part', 'R7', '--reading', '1k', '--red', 'k')).toContain('a, b');
    expect(await refused('--part', 'R7', '--reading', '1k', '--red', '__proto__')).toContain('a, b');
    expect(await refused('--part', 'C1', '--reading', '460u', '--esr', 'open')).toContain('ESR of C1');
    expect(await verdictsOf('--part', 'R7', '--reading', '0', '--in-circuit')).toMatchObject([
      { verdict: 'out', between: { low: 0 } },
    ]);
    // A short is a reading as an open part is, in its words and in a file.
    expect(await verdictsOf('--part', 'R7', '--reading', 'short', '--in-circuit')).toEqual(
      await verdictsOf('--part', 'R7', '--reading', '0', '--in-circuit'),
    );
    const shorts = await unitFile('shorts.json', [
      { part: 'R7', reading: 'short' },
      { part: 'C1', reading: 'shorted' },
      { part: 'D1', reading: 'short', red: 'a' },
      { part: 'R7', reading: 'over range' },
    ]);
    expect((await verdictsOf('--readings', shorts)).map((v) => v.verdict)).toEqual(Array(4).fill('out'));
    const wrong = await unitFile('wrong.json', [{ part: 'R7', reading: 1, incircuit: true }]);
    expect(await refused('--readings', wrong)).toContain('incircuit');
  });

  const stage = (evidence: object[], more: object[] = []) =>
    fileOf(
      [
        { ref: 'V1', kind: 'supply', pins: { plus: 'vcc', minus: '0' }, marked: 12 },
        resistor('R1', '220k', 'vcc', 'b'),
        resistor('R2', '47k', 'b', '0'),
        { ref: 'Q1', kind: 'bjt', pins: { c: 'c', b: 'b', e: 'e' }, model: '2N3904' },
        resistor('R3', '4k7', 'vcc', 'c'),
        resistor('R4', '1k', 'e', '0'),
        ...more,
      ],
      { evidence },
    );
  const seen = (at: string, value: number, unit = 'V') => ({ at, saw: { value, unit } });
  const faultsOf = async (...evidence: object[]) =>
    (await command('faults', await unitFile('faults.json', stage(evidence)))).answer as {
      faults: { ref: string; fault: string; chance: number }[];
      nothing: number;
      somethingElse: number;
      unexplained?: boolean;
      next: { net: string; quantity: string; bits: number; minutes: number; again?: boolean }[];
      ignored?: { at: string; why: string }[];
    };

  it('names the faults of parts that explain the voltages, and what to measure next', async () => {
    // Cut off, with the base at its divider: the emitter's resistor is open, or the transistor's junction.
    const cutOff = await faultsOf(seen('c', 12), seen('b', 2.1));
    expect(new Set(cutOff.faults.slice(0, 3).map((f) => f.ref))).toEqual(new Set(['R4', 'Q1']));
    expect(cutOff.next[0]).toMatchObject({ net: 'e', quantity: 'dcv', minutes: 1 });
    // The emitter follows the base: only an open resistor lets it.
    const found = await faultsOf(seen('c', 12), seen('b', 2.1), seen('e', 1.7));
    expect(found.faults[0]).toMatchObject({ ref: 'R4', fault: 'open' });
    expect(found.faults[0]!.chance).toBeGreaterThan(0.9);
    expect(found.nothing).toBeLessThan(0.01);
  });

  it('reads volts in their usual units, and says what it leaves out and why', async () => {
    const plain = await faultsOf(seen('c', 12), seen('e', 1.7));
    const small = await faultsOf(seen('c', 12_000, 'mV'), seen('e', 1.7e6, 'µV'));
    expect(small.faults).toEqual(plain.faults);
    const { ignored, faults } = await faultsOf(
      seen('c', 12),
      seen('e', 1.7),
      seen('zz', 3),
      seen('0', 1),
      seen('b', 0.2, 'A'),
      seen('b', 1e9),
    );
    expect(faults).toEqual(plain.faults);
    expect(ignored?.map((i) => i.at)).toEqual(['zz', '0', 'b', 'b']);
    expect(ignored![0]!.why).toBe('there is no net "zz"');
    expect(ignored![3]!.why).toContain('cannot be: read it again');
  });

  it('takes a reading that came twice for sure, and leaves weight for what it does not know', async () => {
    const once = await faultsOf(seen('c', 12), seen('b', 2.1), seen('e', 1.7));
    const twice = await faultsOf(seen('c', 12), seen('b', 2.1), seen('e', 1.7), seen('e', 1.71));
    expect(once.next.some((n) => n.net === 'e' && n.again)).toBe(true);
    expect(twice.next.some((n) => n.net === 'e' && n.again)).toBe(false);
    // A base above its collector and an emitter at half of that: no single part does it.
    const odd = await faultsOf(seen('c', 5), seen('b', 9), seen('e', 4.4), seen('vcc', 12));
    expect(odd.somethingElse).toBeGreaterThan(0.5);
    expect(odd.unexplained).toBe(true);
    // Where either of two explains itself, one of them is read again before anything else.
    const two = await faultsOf(seen('vcc', 12), seen('b', 7), seen('e', 0.1));
    expect(two.next[0]).toMatchObject({ again: true });
    // What some fault does explain is never said to be unexplained, whatever else it may be.
    for (const readings of [[seen('c', 12)], [seen('c', 12), seen('e', 1.7)], [seen('e', 0.4)]])
      expect((await faultsOf(...readings)).unexplained).toBeUndefined();
  });

  it('says when nothing can be computed', async () => {
    const ring = [{ ref: 'V2', kind: 'supply', pins: { plus: 'vcc', minus: '0' }, marked: 9 }];
    const refused = await command('faults', await unitFile('faults.json', stage([seen('c', 12)], ring)));
    expect(refused.code).toBe(1);
    expect(refused.sentence).toContain('no operating point');
  });
});
