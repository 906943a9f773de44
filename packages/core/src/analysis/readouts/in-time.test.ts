import { describe, expect, it } from 'vitest';
import { markedCircuitOf, type Unnamed } from '../../testing/circuits.ts';
import { evaluateAll, semitones, type Readout } from './index.ts';

const readAll = (lines: string, readouts: readonly Unnamed[]) =>
  evaluateAll(
    markedCircuitOf(lines),
    readouts.map((r, i) => ({ id: `r${i}`, name: `readout ${i}`, ...r }) as Readout),
  );
const read = (lines: string, readout: Unnamed) => {
  const [answer] = readAll(lines, [readout]);
  if (!answer!.ok) throw new Error(answer!.problem.message);
  return answer!.value;
};
const OPAMP = 'V1 9V vp 0\nV2 9V 0 vm\n';
const TIMER =
  'V1 9V vcc 0\nTM1 gnd=0 trig=c out=out reset=vcc ctrl=ct thr=c dis=d vcc=vcc\nC2 10n ct 0\nR1 10k vcc d\nR2 47k d c\nC1 10n c 0';

describe('readouts in time', () => {
  it('reads the rate and period of a timer (published equations of the 555-type)', () => {
    const period = Math.LN2 * 104e3 * 10e-9;
    expect(read(TIMER, { kind: 'rate', net: 'out' }) * period).toBeCloseTo(1, 2);
    expect(read(TIMER, { kind: 'period', net: 'out' }) / period).toBeCloseTo(1, 2);
  });

  it('says that a resting circuit does not oscillate', () => {
    const [answer] = readAll('V1 9V vcc 0\nR1 1k vcc a\nR2 1k a 0', [{ kind: 'rate', net: 'a' }]);
    expect(!answer!.ok && answer!.problem.message).toMatch(/net a does not oscillate/);
  });

  it('times R and C into a threshold: RC ln(V/(V - Vt))', () => {
    const lines = 'V1 9V vcc 0\nR1 1M vcc a\nC1 10u a 0';
    expect(read(lines, { kind: 'delay', net: 'a', thresholdV: 6 }) / (10 * Math.log(3))).toBeCloseTo(1, 3);
    const [never] = readAll(lines, [{ kind: 'delay', net: 'a', thresholdV: 12 }]);
    expect(!never!.ok && never!.problem.message).toMatch(/does not pass 12 V in the first 27 hours/);
  });

  it('reads the thump that a coupling capacitor lets through at switch-on', () => {
    // The divided supply appears at once behind the empty capacitor, and dies away.
    const lines = 'V1 10V vcc 0\nR1 1k vcc a\nR2 1k a 0\nC1 1u a out\nR3 100k out 0';
    expect(read(lines, { kind: 'thump', net: 'out' }) / (10 * (1 / 2.0))).toBeCloseTo(1, 1);
  });
});

describe('distortion and headroom', () => {
  const clipper = `${OPAMP}G1 1V 1kHz in 0\nU1 plus=in minus=m out=out vplus=vp vminus=vm GBW=1e8\nR1 1k m 0\nR2 9k out m`;

  it('is nothing in the linear range, and that of a clipped sine beyond', () => {
    expect(
      read(clipper, { kind: 'thd', source: 'G1', out: 'out', frequencyHz: 1000, levelV: 0.5 }),
    ).toBeLessThan(1e-3);
    // A sine of 12 V clipped at 9 V: its harmonics by the Fourier integrals of the flattened wave.
    const clip = 9 / 12;
    const wave = Float64Array.from({ length: 4096 }, (_, i) =>
      Math.max(-clip, Math.min(clip, Math.sin((2 * Math.PI * i) / 4096))),
    );
    const amplitude = (n: number) =>
      wave.reduce((sum, v, i) => sum + v * Math.sin((2 * Math.PI * n * i) / 4096), 0);
    const expected = Math.hypot(...[2, 3, 4, 5, 6, 7, 8, 9, 10].map(amplitude)) / amplitude(1);
    expect(
      read(clipper, { kind: 'thd', source: 'G1', out: 'out', frequencyHz: 1000, levelV: 1.2 }),
    ).toBeCloseTo(expected, 2);
  });

  it('has its headroom a little above the supply', () => {
    const headroom = read(clipper, { kind: 'headroom', source: 'G1', out: 'out', frequencyHz: 1000 });
    expect(headroom).toBeGreaterThan(8.9);
    expect(headroom).toBeLessThan(9.6);
  });
});

describe('noise, leakage and range', () => {
  it('reads noise at the output and referred to a source', () => {
    const lines = 'G1 1V in 0\nR1 9k in out\nR2 1k out 0';
    const at = read(lines, { kind: 'noise', out: 'out' });
    expect(read(lines, { kind: 'noise', out: 'out', source: 'G1' }) / at).toBeCloseTo(10, 4);
    expect(read(lines, { kind: 'noise', out: 'out', weighting: 'A' })).toBeLessThan(at);
    const [empty] = readAll(lines, [{ kind: 'noise', out: 'out', fromHz: 1000, toHz: 20 }]);
    expect(!empty!.ok && empty!.problem.message).toMatch(/band from 1000 Hz to 20 Hz is empty/);
  });

  it('separates two channels that share one network', () => {
    const lines =
      'G1 1V inL 0\nG2 1V inR 0 resistance=100\nR1 10k inL outL\nR2 10k inR outR\nR3 90k outL outR\nR4 10k outL 0\nR5 10k outR 0';
    const separation = read(lines, {
      kind: 'separation',
      from: 'inL',
      wanted: 'outL',
      leak: 'outR',
      frequencyHz: 1000,
    });
    // Seen from outL, outR hangs behind 90k on 10k and 10.1k in parallel.
    const behind = 1 / (1 / 10_000 + 1 / 10_100);
    expect(separation).toBeCloseTo(20 * Math.log10((90_000 + behind) / behind), 2);
  });

  it('reads what is left of a supply ripple behind R and C', () => {
    const lines = 'V1 9V vcc 0\nR1 1k vcc a\nC1 100u a 0\nR2 100k a 0';
    expect(read(lines, { kind: 'ripple', net: 'a', frequencyHz: 100, sourceV: 0.1 })).toBeCloseTo(
      0.1 / Math.hypot(1.01, 2 * Math.PI * 100 * 0.1),
      6,
    );
  });

  it('gives both ends of a range over a potentiometer', () => {
    const lines = 'G1 1V in 0\nP1 10k linear 0 w in\nR1 1G w 0';
    const [, range] = readAll(lines, [
      { kind: 'gain', from: 'in', to: 'w', frequencyHz: 1000 },
      { kind: 'range', of: 'r0', part: 'P1' },
    ]);
    expect(range).toMatchObject({
      ok: true,
      range: { min: expect.closeTo(-80, 1), max: expect.closeTo(0, 2) },
    });
    const [lost] = readAll(lines, [{ kind: 'range', of: 'nothing', part: 'P1' }]);
    expect(!lost!.ok && lost!.problem.message).toMatch(/no readout "nothing"/);
  });

  it('counts semitones: an octave has twelve', () => {
    const lines = TIMER.replace('R1 10k vcc d', 'R1 1k vcc y\nP1 100k linear position=0.5 1=y 2=d 3=d');
    const [, pitch] = readAll(lines, [
      { kind: 'rate', net: 'out' },
      { kind: 'range', of: 'r0', part: 'P1', in: 'semitones' },
    ]);
    // From RA = 1k to 101k beside two RB of 47k.
    expect(pitch!.ok && pitch!.value).toBeCloseTo(12 * Math.log2((101 + 94) / (1 + 94)), 0);
    expect(semitones(440, 880)).toBeCloseTo(12, 12);
    expect(semitones(440, 466.1638)).toBeCloseTo(1, 5);
  });
});

describe('what begins late, or at once', () => {
  it('a threshold that is passed as the supply comes takes no time', () => {
    // A divider without a capacitor stands at 4.5 V from the first moment.
    const lines = 'V1 9V v 0\nR1 1k v a\nR2 1k a 0';
    expect(read(lines, { kind: 'delay', net: 'a', thresholdV: 3 })).toBe(0);
  });

  it('a coupling capacitor that charges slowly makes its thump long after the first quiet', () => {
    // 10u behind 50k and 470u behind 10k: by hand the output peaks near 3.4 V after about 1.2 s.
    const lines = `V1 9V v 0\nR1 100k v b\nR2 100k b 0\nC3 10u b 0\nU1 TL072 plus=b minus=o out=o vplus=v vminus=0
      C1 470u o out\nR3 10k out 0`;
    const [t1, t2] = [50e3 * 10e-6, 10e3 * 470e-6];
    // 4.5 V (1 - e^(-t/t1)) through a high-pass of t2, at its peak.
    const at = (t: number) => ((4.5 * t2) / (t2 - t1)) * (Math.exp(-t / t2) - Math.exp(-t / t1));
    const peak = Math.max(...Array.from({ length: 5000 }, (_, i) => at(i * 1e-3)));
    expect(Math.abs(read(lines, { kind: 'thump', net: 'out' }) / peak - 1)).toBeLessThan(0.05);
  });

  it('a mains winding that feeds a rectifier is a supply and not silenced', () => {
    const lines = 'G1 17V 50Hz in 0\nD1 1N4007 in dc\nC1 1000u dc 0\nR1 1k dc 0';
    expect(read(lines, { kind: 'delay', net: 'dc', thresholdV: 10 })).toBeLessThan(0.05);
  });

  it('a channel that does not arrive is as far apart as anything is', () => {
    const lines = 'G1 1V a 0\nR1 1k a l\nR2 1k l 0\nR3 1k r 0';
    expect(read(lines, { kind: 'separation', from: 'G1', wanted: 'l', leak: 'r', frequencyHz: 1000 })).toBe(
      160,
    );
    expect(read(lines, { kind: 'separation', from: 'G1', wanted: 'r', leak: 'l', frequencyHz: 1000 })).toBe(
      -160,
    );
  });
});

describe('a class B stage', () => {
  it('has its headroom under clipping, whatever its crossing over does at low level', () => {
    const lines = `V1 15V vp 0\nV2 15V 0 vm\nG1 1V in 0\nU1 NE5532 plus=in minus=m out=d vplus=vp vminus=vm
      Q1 bjt npn c=vp b=d e=o IS=1e-12 BF=80\nQ2 bjt pnp c=vm b=d e=o IS=1e-12 BF=80
      R1 10k o m\nR2 1k m 0\nLD1 kind=load 8 o 0`;
    const thdAt = (levelV: number) =>
      read(lines, { kind: 'thd', source: 'G1', out: 'o', frequencyHz: 1000, levelV });
    expect(thdAt(1e-3)).toBeGreaterThan(0.01);
    const headroom = read(lines, { kind: 'headroom', source: 'G1', out: 'o', frequencyHz: 1000 });
    // Within 15 V, less the headroom of the chip and a junction: volts and not millivolts.
    expect(headroom).toBeGreaterThan(2);
    const power = read(lines, {
      kind: 'outputPower',
      source: 'G1',
      out: 'o',
      load: 'LD1',
      frequencyHz: 1000,
    });
    expect(power).toBeCloseTo(headroom ** 2 / 16, 1);
    // What the number hides is said beside it; a stage without a crossing over has nothing to say.
    const besideOf = (circuit: string) => {
      const readout = {
        id: 'h',
        name: 'h',
        kind: 'headroom',
        source: 'G1',
        out: 'o',
        frequencyHz: 1000,
      } as const;
      const [answer] = evaluateAll(markedCircuitOf(circuit), [readout]);
      return answer!.ok ? answer!.beside : answer!.problem.message;
    };
    expect(besideOf(lines)).toMatch(
      /^Below that it distorts more: [\d.]+ % at (?:100 µV|1 mV|10 mV|100 mV) in/,
    );
    expect(
      besideOf('V1 9V vp 0\nV2 9V 0 vm\nG1 1V in 0\nU1 TL072 plus=in minus=o out=o vplus=vp vminus=vm'),
    ).toBe(undefined);
  });
});

describe('what begins late', () => {
  const relay = (c: string, transistor: string) =>
    `V1 12V v 0\nR1 33k v a\nC1 ${c} a 0\nR2 10k a b\n${transistor}\nK1 relay coilA=v coilB=k com=amp no=spk coilOhm=400 pullInV=9 dropOutV=2\nV2 1.5V amp 0\nR3 8 spk 0`;
  const IDEAL = 'Q1 bjt npn k b 0 BF=300 IS=6.7e-15';

  it('is heard: a muting relay that closes on an offset makes a thump of it', () => {
    for (const c of ['10u', '100u'])
      expect(read(relay(c, IDEAL), { kind: 'thump', net: 'spk' })).toBeCloseTo(1.5, 2);
  });

  it('takes the time of R and C, and that of the armature', () => {
    // The same but for the capacitor: ten times as long, and 5 ms more in both.
    const [short, long] = ['10u', '100u'].map((c) =>
      read(relay(c, 'Q1 2N3904 k b 0'), { kind: 'delay', net: 'spk', thresholdV: 1 }),
    ) as [number, number];
    expect((long - 5e-3) / (short - 5e-3)).toBeCloseTo(10, 1);
    expect(short).toBeGreaterThan(0.09);
    const slow = relay('10u', 'Q1 2N3904 k b 0').replace('coilOhm=400', 'coilOhm=400 operateS=50m');
    expect(read(slow, { kind: 'delay', net: 'spk', thresholdV: 1 }) - short).toBeCloseTo(0.045, 3);
  });

  it('is the rise of a bias behind its coupling capacitor', () => {
    const lines =
      'V1 9V v 0\nR1 100k v b\nR2 100k b 0\nC3 10u b 0\nU1 TL072 plus=b minus=o out=o vplus=v vminus=0\nC1 470u o out\nR3 10k out 0';
    // 4.5 V (1 - e^(-t/0.5 s)) behind 470 uF and 10k: 3.42 V at 1.24 s.
    expect(Math.abs(read(lines, { kind: 'thump', net: 'out' }) - 3.425)).toBeLessThan(0.01);
  });

  it('goes up to the top of a rectified supply, whose ripple is no unrest', () => {
    const lines = 'G1 17V 50Hz in 0\nD1 1N4007 in dc\nC1 1000u dc 0\nR1 1k dc 0';
    const peak = read(lines, { kind: 'thump', net: 'dc' });
    expect(peak).toBeGreaterThan(15.8);
    expect(peak).toBeLessThan(16.6);
    expect(read(lines, { kind: 'delay', net: 'dc', thresholdV: 10 })).toBeLessThan(0.02);
  });

  it('is timed by the hour', () => {
    const lines = 'V1 9V v 0\nR1 36M v a\nC1 100u a 0';
    expect(
      read(lines, { kind: 'delay', net: 'a', thresholdV: 5.69 }) / (3600 * Math.log(9 / 3.31)),
    ).toBeCloseTo(1, 3);
  });
});
