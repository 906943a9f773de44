import { describe, expect, it } from 'vitest';
import { resolveLayer } from '../../circuit/changes/index.ts';
import { netsOf, type Circuit } from '../../circuit/circuit/index.ts';
import { circuitOf } from '../../testing/circuits.ts';
import { changeOffers, parseChangeLine } from './index.ts';

const STAGE =
  circuitOf(`V1 9V vcc 0\nR1 220k vcc b\nR2 47k b 0\nC1 10u in b\nQ1 2N3904 c b e\nR3 4k7 vcc c\nR4 1k e 0
  P1 10k 1=0 2=w 3=c\nSW1 w out closed\nJ1 jumper out far\nU1 TL072 plus=w minus=far out=far vplus=vcc vminus=0`);

/** What is typed behind an offer that is not complete. */
const MORE: Readonly<Record<string, string>> = { 'other value': '820', 'wire to': 'vcc' };
const wordsAt = (place: Parameters<typeof changeOffers>[1]) => changeOffers(STAGE, place).map((o) => o.words);

describe('what can be done at a place', () => {
  it('reads, every offer of every part and net, and does what its words say', () => {
    const places = [...STAGE.parts.map(({ ref }) => ({ ref })), ...netsOf(STAGE).map((net) => ({ net }))];
    let read = 0;
    for (const place of places)
      for (const { words, line } of changeOffers(STAGE, place)) {
        if (words === 'wire to' && 'net' in place && place.net === 'vcc') continue;
        if (words === 'other value' && 'ref' in place && !/^[RCPV]/.test(place.ref)) continue;
        const whole = line.endsWith(' ') ? line + MORE[words]! : line;
        const change = parseChangeLine(whole, STAGE);
        expect(change.ok ? '' : `${whole}: ${change.problem.message}`).toBe('');
        read += 1;
      }
    expect(read).toBeGreaterThan(60);
  });

  it('is another value, across, in series, out, a leg and a twin at a resistor', () => {
    expect(wordsAt({ ref: 'R1' })).toEqual([
      'other value',
      'add across',
      'add in series',
      'take out',
      'lift a leg',
      'swap with',
    ]);
    expect(wordsAt({ ref: 'Q1' })).not.toContain('add across');
    expect(changeOffers(STAGE, { ref: 'R1' })[1]!.line).toBe('+C2 100n vcc b');
  });

  it('is to the ground, a cut and a wire at a net; nothing at the ground or at what is not there', () => {
    expect(wordsAt({ net: 'b' })).toEqual(['add to ground', 'cut here', 'wire to']);
    expect(wordsAt({ net: 'in' })).not.toContain('cut here');
    expect([{ net: '0' }, { net: 'nowhere' }, { ref: 'R99' }, {}].flatMap(wordsAt)).toEqual([]);
  });

  it('goes by the circuit as it is planned, and takes no name of a change', () => {
    const changed: Circuit = {
      ...STAGE,
      changes: [
        {
          id: 'm',
          name: 'm',
          purpose: 'modification',
          state: 'planned',
          steps: [
            { do: 'add', part: { ref: 'C2', kind: 'capacitor', pins: { a: 'b', b: 'n9' }, marked: 1e-9 } },
            { do: 'remove', ref: 'R2' },
          ],
        },
      ],
    };
    expect(changeOffers(changed, { ref: 'R2' })).toEqual([]);
    expect(changeOffers(changed, { ref: 'C2' })[1]!.line).toBe('+C3 100n b n9');
    expect(resolveLayer(changed, 'planned').parts.some((p) => p.ref === 'C2')).toBe(true);
  });
});
