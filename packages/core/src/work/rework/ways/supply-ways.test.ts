import { describe, expect, it } from 'vitest';
import { circuitOf } from '../../../testing/circuits.ts';
import { way, done, refusal, offered, decibel } from '../../../testing/way-done.ts';
import { asksAt, makeWay, placeIn } from './index.ts';

describe('supply', () => {
  const LOADED = 'V1 12V vcc 0\nR1 1k vcc a\nR2 1k a 0';

  it('an RC cell: the voltage that is left, and hum down by what was asked for', () => {
    const { reads, valueOf, lastOf } = done('supply-cell', LOADED, { ref: 'V1' }, { lost: 1, db: 20 });
    const [r, c] = [valueOf('R3'), lastOf('capacitor').value as number];
    expect(reads({ kind: 'voltage', net: 'vcc' })).toBeCloseTo(12 * (2000 / (2000 + r)), 3);
    const parallel = 1 / (1 / r + 1 / 2000);
    const ripple = parallel / r / Math.hypot(1, 2 * Math.PI * 100 * parallel * c);
    expect(reads({ kind: 'ripple', net: 'vcc', frequencyHz: 100, sourceV: 1, source: 'V1' })).toBeCloseTo(
      ripple,
      3,
    );
    expect(-decibel(ripple)).toBeGreaterThan(18.9);
  });

  it('the hum of the mains that is here: twice its frequency, and a snubber passes its current', () => {
    const hum = (mainsHz: 50 | 60) =>
      asksAt(way('supply-cell'), placeIn(circuitOf(LOADED), { ref: 'V1', mainsHz }))!.find(
        (a) => a.id === 'hz',
      )!.given;
    expect([hum(50), hum(60)]).toEqual([100, 120]);
    const place = placeIn(circuitOf(`${LOADED}\nSW9 vcc x\nR9 1k x 0`), { ref: 'SW9', mainsHz: 60 });
    const { warnings } = makeWay(way('snubber'), place, { volts: 24, ampere: 0.1 });
    // 24 V x 2 pi 60 Hz x 10 nF (the least that is fitted): 90 µA.
    expect(warnings.join(' ')).toContain('90.5 µA at 60 Hz');
  });

  it('takes what the drawer has where that is near enough', () => {
    const place = placeIn(circuitOf(LOADED), { ref: 'V1' });
    const values = (count: number) =>
      makeWay(way('supply-cell'), place, { lost: 1, db: 20, hz: 100 }, [
        { kind: 'resistor', value: 190, count, place: 'A2' },
      ]).steps.flatMap((s) => (s.do === 'add' && s.part.kind === 'resistor' ? [s.part.marked] : []));
    // 181.8 ohm would be exact, and 180 of E24 nearer.
    expect(values(1)).toEqual([190]);
    expect(values(0)).toEqual([180]);
  });

  it('a choke: 1/(w^2 LC - 1), and only its wire is lost', () => {
    const { reads, lastOf } = done(
      'supply-choke',
      LOADED,
      { net: 'vcc' },
      { henry: 1, wire: 50, db: 26, hz: 100 },
    );
    const c = lastOf('capacitor').value as number;
    expect(reads({ kind: 'voltage', net: 'vcc' })).toBeCloseTo(12 * (2000 / 2050), 3);
    const down = decibel((2 * Math.PI * 100) ** 2 * c - 1);
    expect(down).toBeGreaterThan(24.9);
  });

  it('a regulator below what is there', () => {
    const { reads } = done('supply-regulator', LOADED, { ref: 'V1' }, { volts: 5 });
    expect(reads({ kind: 'voltage', net: 'vcc' })).toBeCloseTo(5, 2);
    expect(offered('V1 5V vcc 0\nR1 1k vcc 0', { ref: 'V1' })).not.toContain('supply-regulator');
  });

  it('a pilot LED at a rail, and none at a divider', () => {
    const { reads } = done(
      'led-resistor',
      'V1 9V vcc 0\nR1 10k vcc 0',
      { net: 'vcc' },
      { ampere: 3e-3, drop: 2 },
    );
    expect(Math.abs(reads({ kind: 'current', part: 'LED1' }) / 3e-3 - 1)).toBeLessThan(0.08);
    expect(
      refusal('led-resistor', 'V1 1V vcc 0\nR1 1k vcc 0', { net: 'vcc' }, { ampere: 1e-3, drop: 2 }),
    ).toContain('lights no LED');
    expect(
      refusal(
        'led-resistor',
        'V1 12V vcc 0\nR1 10k vcc m\nR2 10k m 0',
        { net: 'm' },
        { ampere: 3e-3, drop: 2 },
      ),
    ).toContain('asked for');
    const white = done(
      'led-resistor',
      'V1 9V vcc 0\nR1 10k vcc 0',
      { net: 'vcc' },
      { ampere: 3e-3, drop: 3.2 },
    );
    expect(Math.abs(white.reads({ kind: 'current', part: 'LED1' }) / 3e-3 - 1)).toBeLessThan(0.08);
  });

  it('a bleeder counts all that empties through it', () => {
    const two = 'V1 300V hv 0 resistance=100\nC1 47u hv 0\nC2 47u hv 0\nR1 100k hv 0';
    const { valueOf, made } = done('bleeder', two, { ref: 'C1' }, { time: 30 });
    expect(valueOf('R2') * 94e-6 * Math.log(10)).toBeLessThanOrEqual(30.1);
    expect(made.sentences[0]).toContain('C2 with it');
    const pi = 'V1 300V hv 0 resistance=100\nC1 47u hv 0\nR9 1k hv b\nC2 100u b 0\nR1 100k b 0';
    const filtered = done('bleeder', pi, { ref: 'C1' }, { time: 60 });
    expect(filtered.valueOf(filtered.lastOf('resistor').ref) * 147e-6 * Math.log(10)).toBeLessThanOrEqual(
      60.1,
    );
    expect(offered('V1 9V a 0\nC1 1u a 0\nR1 1k a 0', { ref: 'C1' })).not.toContain('bleeder');
  });
});

describe('pins and rails', () => {
  const LOGIC = 'V1 15V vp 0\nV2 5V vd 0\nR1 100k mute 0\nR2 10k vd x\nR3 10k vp y';

  it('a control pin is pulled to the lowest rail, no higher than it bears', () => {
    const { reads, made } = done('force-pin', LOGIC, { net: 'mute' });
    expect(reads({ kind: 'voltage', net: 'mute' }, { SW1: true })).toBeCloseTo(5 * (100 / (100 + 5.1)), 0);
    expect(made.promises[0]).toMatchObject({ is: 'most' });
    expect(refusal('force-pin', LOGIC, { net: 'mute' }, { rail: 15 })).toContain('at most');
    expect(refusal('pull-up', LOGIC, { net: 'mute' }, { rail: 3.3 })).toContain(
      'No rail has 3.3 V: there are vd with 5 V',
    );
    expect(done('pull-up', LOGIC, { net: 'mute' }).reads({ kind: 'voltage', net: 'mute' })).toBeGreaterThan(
      4.5,
    );
  });

  it('nothing that is not meant for it is offered at a high tension', () => {
    const valve = `V1 250V hv 0\nR1 100k hv an\nT1 12AX7 a=an g=in k=ca\nR2 1k5 ca 0\nR3 1M in 0\nG1 10mV in 0\nC1 22n an out\nR4 1M out 0`;
    const allowed = new Set(['bleeder', 'supply-cell', 'supply-choke', 'bass-corner']);
    for (const chosen of [{ net: 'hv' }, { net: 'an' }, { ref: 'R1' }, { ref: 'C1' }, { ref: 'V1' }])
      expect(offered(valve, chosen).filter((id) => !allowed.has(id))).toEqual([]);
  });

  it('a mute relay waits as long as it says, from a rail that it may use', () => {
    const lines = 'V9 250V hv 0\nR9 100k hv 0\nV1 12V vcc 0\nG1 1V out 0 resistance=10\nR1 10k out 0';
    const { made, lastOf } = done('mute-relay', lines, { net: 'out' }, { time: 2, coil: 1000, pull: 5 });
    const c = lastOf('capacitor').value as number;
    // 12 V through 820 ohm on 1k: 6.59 V; RC = 450.5 ohm C, t = RC ln(1/(1 - 5/6.59)).
    expect(made.promises[0]!.value / (450.5 * c * Math.log(1 / (1 - 5 / 6.593)))).toBeCloseTo(1, 1);
    expect(
      refusal(
        'mute-relay',
        'V1 6V hv 0\nR1 1k hv out\nR2 1k out 0',
        { net: 'out' },
        { time: 2, coil: 1000, pull: 9 },
      ),
    ).toContain('does not pull in');
    // 1 F at a coil of few ohms is nothing that anybody fits.
    expect(
      refusal(
        'mute-relay',
        'V1 6V hv 0\nR1 1k hv 0\nR2 1k out 0',
        { net: 'out' },
        { time: 2, coil: 10, pull: 5 },
      ),
    ).toContain('would be needed');
  });
});
