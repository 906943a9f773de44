import type { Verb } from '../verb.ts';
import { noise, poles, sensitivity, tolerance, transient } from './analysis.ts';
import { board } from './board.ts';
import { ac, check, op, readouts } from './circuit.ts';
import { changes, circuit } from './changes.ts';
import { drill, suspects } from './isolate.ts';
import { faults } from './faults.ts';
import { judge } from './judge.ts';
import { meter } from './meter.ts';
import { preferred, value } from './quantity.ts';
import { solve } from './solve.ts';
import { steps } from './steps.ts';
import { way, ways } from './ways.ts';
import { wiring } from './wiring.ts';

const LAYER = '[--layer marked|found|planned|proven --set ID --setting ID]';

/** The verbs of the command; each answers one JSON document. */
export const VERBS: readonly Verb[] = [
  {
    name: 'check',
    usage: `FILE ${LAYER}`,
    does: 'Says what is wrong with a unit, and what was not understood of it.',
    example: 'check preamp.zemble.json',
    run: check,
  },
  {
    name: 'circuit',
    usage: `FILE ${LAYER}`,
    does: 'The circuit of a layer as a plain unit file without changes.',
    example: 'circuit preamp.zemble.json --layer planned --set gentle',
    run: circuit,
  },
  {
    name: 'changes',
    usage: 'FILE [--set ID]',
    does: 'Every change with its problems and its way back, and what must still come back.',
    example: 'changes preamp.zemble.json',
    run: changes,
  },
  {
    name: 'op',
    usage: `FILE ${LAYER}`,
    does: 'The operating point: voltage of every net, current and heat of every part.',
    example: 'op preamp.zemble.json --layer found',
    run: op,
  },
  {
    name: 'ac',
    usage: `FILE --source REF --out NET|--current REF [--from 20 --to 20k --per-decade 20] ${LAYER}`,
    does: 'The response relative to 1 V at a source.',
    example: 'ac preamp.zemble.json --source G1 --out out --from 20 --to 20k',
    run: ac,
  },
  {
    name: 'noise',
    usage: `FILE --out NET [--source REF --from 20 --to 20k --weighting none|A|468 --level V] ${LAYER}`,
    does: 'Noise at a net, over a band, and who makes it.',
    example: 'noise preamp.zemble.json --out out --weighting A',
    run: noise,
  },
  {
    name: 'transient',
    usage: `FILE --stop S --out NET[,NET] [--step S --start zero|op --seconds 20] ${LAYER}`,
    does: 'A run in time.',
    example: 'transient preamp.zemble.json --stop 10ms --out out --step 20us',
    run: transient,
  },
  {
    name: 'poles',
    usage: `FILE ${LAYER}`,
    does: 'Natural frequencies about the operating point.',
    example: 'poles preamp.zemble.json',
    run: poles,
  },
  {
    name: 'tolerance',
    usage: `FILE --readout ID [--runs 10000 --seed 1 --distribution uniform|normal --seconds 20] ${LAYER}`,
    does: 'Spread of a readout over the tolerances of its parts.',
    example: 'tolerance preamp.zemble.json --readout gain --runs 2000 --seed 1',
    run: tolerance,
  },
  {
    name: 'sensitivity',
    usage: `FILE --readout ID ${LAYER}`,
    does: 'How far each part moves a readout, a per cent of its value.',
    example: 'sensitivity preamp.zemble.json --readout gain',
    run: sensitivity,
  },
  {
    name: 'readouts',
    usage: 'FILE [--set ID --setting ID]',
    does: 'Every readout on every layer.',
    example: 'readouts preamp.zemble.json',
    run: readouts,
  },
  {
    name: 'meter',
    usage: `FILE --between NETA,NETB [--mode ohm|cap|diode|dcv --input-ohm 10M] ${LAYER}`,
    does: 'What an instrument would show, in circuit; the red lead is on the first net.',
    example: 'meter preamp.zemble.json --between out,0 --mode ohm',
    run: meter,
  },
  {
    name: 'judge',
    usage: `FILE --part REF --reading VALUE [--esr OHM --in-circuit --red PIN --aspect NAME] | --readings FILE.json ${LAYER}`,
    does: 'What a reading says about a part; the other parts are taken from the layer, anywhere in their tolerances.',
    example: 'judge preamp.zemble.json --part R7 --reading 62k --in-circuit',
    run: judge,
  },
  {
    name: 'faults',
    usage: `FILE ${LAYER}`,
    does: 'The faults of parts that explain the voltages and levels of the evidence, and what to measure next.',
    example: 'faults preamp.zemble.json',
    run: faults,
  },
  {
    name: 'suspects',
    usage: 'FILE [--school value|inject|trace|halve]',
    does: 'The suspects among blocks after what was seen, and the next best tests.',
    example: 'suspects intercom.zemble.json',
    run: suspects,
  },
  {
    name: 'drill',
    usage: 'FILE [--fault ID --wrong 0.05 --runs 1000 --seed 1 --school value|inject|trace|halve]',
    does: 'Plays the search against planted faults.',
    example: 'drill intercom.zemble.json --wrong 0.05 --runs 1000 --seed 1',
    run: drill,
  },
  {
    name: 'solve',
    usage: `FILE [--readout ID --may R1,R2 --series E24 --most 20 --seconds 20 --keep ID,ID --drawer FILE.csv --to-set ID] ${LAYER}`,
    does: 'Value changes that bring a readout into its wanted range.',
    example: 'solve preamp.zemble.json --readout gain --may R3,R4 --series E24',
    run: solve,
  },
  {
    name: 'ways',
    usage: 'FILE --at REF|NET [--layer planned]',
    does: 'The ways of doing that offer themselves at a part or a net, and what each asks.',
    example: 'ways preamp.zemble.json --at U1',
    run: ways,
  },
  {
    name: 'way',
    usage: `FILE --at REF|NET --id ID [--answers '{"gain":"6dB"}' --layer planned]`,
    does: 'The change that does it, its values found in the circuit, and the readouts that it promises.',
    example: `way preamp.zemble.json --at U1 --id gain-by-feedback --answers '{"gain":"6dB"}'`,
    run: way,
  },
  {
    name: 'steps',
    usage: 'FILE [--change ID] [--whole] [--set ID]',
    does: 'The bench work of the planned changes in order, the way back of one that is done, or a whole unit built from nothing.',
    example: 'steps preamp.zemble.json --change m1',
    run: steps,
  },
  {
    name: 'board',
    usage: `FILE [--board ID] | --propose --columns N --rows M [--style strip|pads --seed 1 --seconds 20] ${LAYER}`,
    does: 'What is wrong with a board beside its circuit, or a board that is right.',
    example: 'board preamp.zemble.json --propose --columns 24 --rows 12',
    run: board,
  },
  {
    name: 'wiring',
    usage: `FILE ${LAYER}`,
    does: 'What is wrong with the wires between board and panel, and every lug as it is seen from behind.',
    example: 'wiring preamp.zemble.json',
    run: wiring,
  },
  {
    name: 'value',
    usage: `TEXT [--kind resistor|capacitor|inductor]`,
    does: 'Reads a value in any notation of the trade.',
    example: 'value 4k7',
    run: value,
  },
  {
    name: 'preferred',
    usage: 'TEXT [--series E24 --kind resistor|capacitor|inductor]',
    does: 'The nearest preferred value, and pairs that come closer.',
    example: 'preferred 4.85k --series E12',
    run: preferred,
  },
];
