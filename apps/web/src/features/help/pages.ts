import type { RailStage } from '../../unit/stages.ts';
import type { Word } from './glossary.ts';

/** What a screen is for, in the trade's words, with its keys and the words that stand on it. */
export interface HelpPage {
  readonly title: string;
  readonly purpose: string;
  /** What is done there, in its order. */
  readonly steps: readonly string[];
  readonly keys: readonly (readonly [keys: string, does: string])[];
  readonly words: readonly Word[];
}

export type HelpId = RailStage | 'bench' | 'drawer' | 'desk';

/** Keys that work on every screen of a unit. */
export const IN_A_UNIT: HelpPage['keys'] = [
  ['Alt 1', 'to Alt 7: the stages in their order'],
  ['Alt E', 'change what is chosen, in Rework'],
  ['Ctrl Z', 'take back your newest step'],
];

/** Keys that work on every screen. */
export const EVERYWHERE: HelpPage['keys'] = [
  ['Ctrl K', 'go to anything: a stage, part, net, page, unit, word'],
  ['? F1', 'this help'],
];

export const HELP_PAGES: Readonly<Record<HelpId, HelpPage>> = {
  bench: {
    title: 'Bench',
    purpose: 'All units that are being worked on. Each has its circuit, its readings, its changes and its log.',
    steps: ['Put a new unit on the bench, or open a unit file.', 'Choose a unit to go on where it was left.', 'What is done with is put away, and can be brought back.'],
    keys: [],
    words: ['net', 'readout', 'layer', 'path'],
  },
  intake: {
    title: 'Intake',
    purpose: 'What came in, what it does wrong, and what must be safe before a screw is turned.',
    steps: ['Write the complaint as the owner says it, and which outputs are hit.', 'Do the first checks, cheapest first.', 'Discharge what stores energy, and measure that it is gone.'],
    keys: [],
    words: ['discharge', 'suspicion', 'path'],
  },
  trace: {
    title: 'Trace',
    purpose: 'The circuit as it is on the board: parts a line each, what beeps, and the path of the signal.',
    steps: ['Type or paste the parts: designator, value, nets.', 'Where the board tells more than the paper, beep it out.', 'Propose the path from the circuit, or type its blocks.'],
    keys: [['Enter', 'adds the line'], ['Tab', 'completes a net'], ['↑ ↓', 'choose a row'], ['Delete', 'removes the chosen row']],
    words: ['net', 'ground', 'DC path', 'box', 'beep', 'path', 'block', 'marked'],
  },
  find: {
    title: 'Find',
    purpose: 'One question at a time, the one that tells most for a minute, until one block and one part are left.',
    steps: ['Answer what you see or hear at the point that is asked for.', 'Convict the block that stands out, then search its parts.', 'Mend it, try it, and say whether it was that.'],
    keys: [['↑ ↓', 'another test'], ['C', 'convict the block that stands out']],
    words: ['suspicion', 'bit', 'test point', 'block', 'convict', 'weight', 'by value', 'halve', 'inject backwards', 'trace forwards'],
  },
  measure: {
    title: 'Measure',
    purpose: 'Part after part with the meter: each reading is judged at once, with its neighbours reckoned with.',
    steps: ['Say whether the part is in circuit or has a leg lifted.', 'Type what the meter shows; the next part comes by itself.', 'See which drift matters for the readouts, and which does not.'],
    keys: [['Enter', 'keeps the reading, or skips the part'], ['Space', 'in circuit or leg lifted'], ['↑ ↓', 'another part'], ['Tab', 'completes a name']],
    words: ['found', 'in circuit', 'leg lifted', 'ESR', 'tolerance', 'as drawn', 'out for a while'],
  },
  rework: {
    title: 'Rework',
    purpose: 'Changes and repairs are planned here; every readout shows at once what they do.',
    steps: ['Type a change, or choose a way of doing at a part.', 'Say what is wanted and let the values be found, from the drawer first.', 'Plan what convinces you; Build has its steps.'],
    keys: [['Enter', 'plans the line'], ['Alt E', 'the field, with what is chosen']],
    words: ['planned', 'set', 'setting', 'way of doing', 'yield', 'drawer'],
  },
  build: {
    title: 'Build',
    purpose: 'The work in its order, one step at a time, with where each part goes and what to check before power.',
    steps: ['Take the parts along from the list.', 'Do the step that is shown, and tick it.', 'Check by ohms before the first power.'],
    keys: [['Space', 'the step is done'], ['← →', 'step back and forth']],
    words: ['planned', 'proven', 'out for a while', 'discharge'],
  },
  log: {
    title: 'Log',
    purpose: 'Everything that was done, by whom and when; each step can be taken back from here.',
    steps: ['Read what was tried.', 'Write a note for the next person.'],
    keys: [],
    words: ['convict', 'proven'],
  },
  drawer: {
    title: 'Drawer',
    purpose: 'The parts you have and where they lie, and what the plans of all units still need.',
    steps: ['Type a part with its count and place, or paste a table.', 'See what is reserved and what is to be bought.'],
    keys: [['Enter', 'adds the line']],
    words: ['drawer', 'tolerance', 'planned'],
  },
  desk: {
    title: 'Desk',
    purpose: 'Calculations that need no unit, each with its formula, its numbers and where they come from.',
    steps: ['Choose a calculation.', 'Type what is given; what is asked for is computed.'],
    keys: [['Tab', 'the next field']],
    words: ['desk', 'corner', 'tolerance'],
  },
}; // prettier-ignore
