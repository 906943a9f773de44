import { describe, expect, it } from 'vitest';
import { seededRandom } from '../../base/numeric/index.ts';
import { resolveLayer } from '../../circuit/changes/index.ts';
import { markedValue, usualTolerance, type LayerCircuit } from '../../circuit/circuit/index.ts';
import { circuitOf } from '../../testing/circuits.ts';
import { faultDictionary, searchParts, tellingReadings, voltageQuantities } from './dictionary.ts';
import type { Quantity } from './prediction.ts';
import { faultsOfPart } from './part-faults.ts';

const STAGE = circuitOf(`
  V1 12V vcc 0
  G1 10mV 1kHz in 0
  C1 1u in b
  R1 220k vcc b
  R2 47k b 0
  Q1 2N3904 c b e
  R3 4k7 vcc c
  R4 1k e 0
  C2 10u c out
  R5 100k out 0`);
const sound = resolveLayer(STAGE, 'marked');
const DC = voltageQuantities(STAGE);
const nets = DC.map((q) => (q.kind === 'dcv' ? q.net : ''));

/** What the voltages of a circuit are, in the order of `DC`. */
const voltsOf = (circuit: LayerCircuit) =>
  faultDictionary(circuit, DC, { refs: [] })[0]!.predicted.map((p) => p!.value);
const faulty = (ref: string, mode: string) =>
  faultsOfPart(sound.parts.find((p) => p.ref === ref)!)
    .find((f) => f.mode === mode)!
    .apply(sound);

describe('fault dictionary', () => {
  const dictionary = faultDictionary(sound, DC);
  const search = (circuit: LayerCircuit) => searchParts(dictionary, DC, voltsOf(circuit));

  it('finds nothing wrong in a sound circuit', () => {
    const found = search(sound);
    // Faults that do not show in direct voltages stay possible: capacitors that are open.
    const visible = found.groups.flatMap((g) => g.members).filter((m) => !/open|capacity/.test(m.mode));
    expect(visible.reduce((sum, m) => sum + m.probability, 0)).toBeLessThan(0.25);
    expect(found.unexplained).toEqual([]);
  });

  it('knows the textbook signs: an open emitter resistor cuts off, a shorted base resistor saturates', () => {
    const volts = (circuit: LayerCircuit) =>
      Object.fromEntries(voltsOf(circuit).map((v, i) => [nets[i], v!]));
    // The voltmeter's 10 megohm hang on the collector's resistor.
    const cutOff = (12 * 10e6) / (10e6 + 4700);
    expect(volts(faulty('R4', 'open')).c).toBeCloseTo(cutOff, 1);
    expect(volts(faulty('R1', 'open')).c).toBeCloseTo(cutOff, 3);
    expect(volts(faulty('Q1', 'short, collector to emitter')).e).toBeCloseTo((12 * 1000) / 5701, 1);
    expect(volts(faulty('C1', 'short')).b).toBeCloseTo(0, 4);
  });

  it('groups what cannot be told apart, and proposes the measurement that splits it', () => {
    const all: Quantity[] = [
      ...DC,
      { kind: 'level', net: 'in', frequencyHz: 1000 },
      { kind: 'level', net: 'out', frequencyHz: 1000 },
    ];
    const wide = faultDictionary(sound, all);
    const found = searchParts(wide, all, voltsOf(sound));
    const openCapacitors = found.groups.find((g) =>
      g.members.some((m) => m.ref === 'C2' && m.mode === 'open'),
    )!;
    expect(openCapacitors.members.map((m) => m.ref)).toContain('C1');
    expect(found.next[0]!.quantity).toEqual({ kind: 'level', net: 'out', frequencyHz: 1000 });
  });

  it('splits the work into shares that join to the whole', () => {
    const shares = [0, 1].flatMap((index) => faultDictionary(sound, DC, { share: { index, of: 2 } }));
    const names = (entries: typeof shares) => entries.map((e) => `${e.fault?.ref} ${e.fault?.mode}`).sort();
    expect(names(shares)).toEqual(names(dictionary));
  });

  it('names a part from in-circuit readings with the unit off', () => {
    const ohms: Quantity[] = [
      { kind: 'ohm', red: 'e', black: '0' },
      { kind: 'ohm', red: 'vcc', black: 'c' },
    ];
    const found = searchParts(faultDictionary(sound, ohms), ohms, [null, 4700]);
    expect(found.groups[0]!.members.map((m) => `${m.ref} ${m.mode}`)).toEqual(['R4 open']);
  });

  it('puts a planted fault first with every other part off by its tolerance and a real meter', () => {
    const random = seededRandom(3);
    const around = () => 2 * random() - 1;
    let [hits, members, faults] = [0, 0, 0];
    for (const { fault } of dictionary) {
      if (!fault) continue;
      const drawn = {
        ...STAGE,
        parts: STAGE.parts.map((p) =>
          p.kind === 'resistor'
            ? { ...p, marked: Number(markedValue(p)) * (1 + usualTolerance(p) * around()) }
            : p,
        ),
      };
      const seen = voltsOf(fault.apply(resolveLayer(drawn, 'marked'))).map(
        (v) => v! * (1 + 0.005 * around()) + 0.002 * around(),
      );
      const [group] = searchParts(dictionary, DC, seen).groups;
      faults += 1;
      hits += group?.members.some((m) => m.ref === fault.ref) ? 1 : 0;
      members += new Set(group?.members.map((m) => m.ref)).size;
    }
    expect(hits / faults).toBeGreaterThanOrEqual(0.9);
    expect(members / faults).toBeLessThan(4);
  });
});

describe('faults that no voltage tells apart', () => {
  it('are told apart by a reading in circuit of one of them, switched off', () => {
    // Two equal resistors in parallel: which of them has opened shows in no voltage, but in what either reads alone.
    const circuit = resolveLayer(
      circuitOf('V1 12V vcc 0\nR1 10k vcc a\nR2 20k a m\nR3 20k a m\nC1 10u polarised m 0\nR4 1k m 0'),
      'marked',
    );
    const of = (ref: string, mode: string) => ({ ref, mode, probability: 0.5 });
    const capacitors = tellingReadings(circuit, [of('C1', 'open'), of('R4', 'open')]);
    expect(capacitors[0]!.bits).toBeGreaterThan(0.9);
    // Alike in every way: nothing that a meter shows across them tells them apart, and none is claimed.
    expect(tellingReadings(circuit, [of('R2', 'open'), of('R3', 'open')])).toEqual([]);
    const series = resolveLayer(circuitOf('V1 12V vcc 0\nR1 10k vcc a\nR2 22k a b\nR3 10k b 0'), 'marked');
    const [best] = tellingReadings(series, [of('R2', 'open'), of('R3', 'open')]);
    expect(['R2', 'R3']).toContain(best!.ref);
    expect(best!.bits).toBeGreaterThan(0.9);
  });
});
