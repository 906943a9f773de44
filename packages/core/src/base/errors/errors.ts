/**
 * The error catalogue. An error carries a stable code and data; the human sentence is made here, once.
 * Expected outcomes (did not converge, no corner in the band) are values of the functions concerned; these
 * errors are for input that cannot be worked with.
 */
interface Entry {
  readonly sentence: (data: ErrorData) => string;
  readonly hint: string;
}

export interface ErrorData {
  readonly ref?: string | undefined;
  readonly net?: string | undefined;
  readonly text?: string | undefined;
  readonly where?: string | undefined;
  readonly detail?: string | undefined;
  readonly parts?: readonly string[] | undefined;
  /** A known name that an unknown one is like. */
  readonly resembles?: string | undefined;
}

const list = (names: readonly string[] | undefined) => {
  const all = names ?? [];
  if (all.length < 2) return all.join('');
  return `${all.slice(0, -1).join(', ')} and ${all[all.length - 1]}`;
};

/** "an opamp", "a resistor": English goes by the sound, which these words do not hide. */
const withArticle = (words: string) => `${/^([aeiou8]|LED)/.test(words) ? 'an' : 'a'} ${words}`;

export const CATALOGUE = {
  'value/empty': {
    sentence: () => 'There is no value to read.',
    hint: 'Type a value such as 4k7, 100n or 2.2 MΩ.',
  },
  'value/unreadable': {
    sentence: (d) => `"${d.text}" cannot be read as a value${d.detail ? `: ${d.detail}` : ''}.`,
    hint: 'Write it like 4k7, 2R2, 0.022u, 104, or as band colours.',
  },
  'value/not-positive': {
    sentence: (d) => `"${d.text}" is not above zero.`,
    hint: 'A part has a positive value; write "short" or "open" for a dead one.',
  },
  'value/wrong-unit': {
    sentence: (d) => `"${d.text}" is in ${d.detail}.`,
    hint: 'Check the unit or the designator.',
  },
  'preferred/series': {
    sentence: (d) => `"${d.text}" is not an E series.`,
    hint: 'Use E3, E6, E12, E24, E48, E96 or E192.',
  },
  'file/not-json': {
    sentence: (d) => `This is not a unit file: ${d.detail}.`,
    hint: 'Choose a .zemble.json file; if it was cut short, export it again.',
  },
  'file/wrong-format': {
    sentence: (d) => `This is not a unit file: ${d.detail}.`,
    hint: 'A unit file begins with "format": "zemble/unit".',
  },
  'file/wrong-version': {
    sentence: (d) => `This unit file is of version ${d.text}, and this program reads version 1.`,
    hint: 'Open it with the program that wrote it, or a newer one.',
  },
  'file/too-large': {
    sentence: (d) => `The file is ${d.text}, and a unit file is at most ${d.detail}.`,
    hint: 'Check that it is a unit file and not a picture or a recording.',
  },
  'file/invalid': {
    sentence: (d) => `At ${d.where}: ${d.detail}.`,
    hint: 'Mend the field named and open the file again.',
  },
  'sheet/unreadable': {
    sentence: (d) => `${d.detail}`,
    hint: 'A line is: designator, value, nets. For example: R4 47k in n2',
  },
  'circuit/unknown-pin': {
    sentence: (d) => `${d.ref} has no pin "${d.text}"; its pins are ${d.detail}.`,
    hint: 'Name the pins as listed.',
  },
  'circuit/pinout-unsaid': {
    sentence: (d) => `${d.ref}: a ${d.text} comes as ${d.detail}, so its pins have no sure numbers.`,
    hint: 'Name the pin by its letter, or say which it is: pinout=E-B-C.',
  },
  'circuit/package': {
    sentence: (d) => `${d.text} is one package: ${d.detail}.`,
    hint: 'Correct the one that is wrong, or give it a designator of its own.',
  },
  'circuit/pin-open': {
    sentence: (d) => `${d.ref}: pin ${d.text} is not connected.`,
    hint: 'Give the pin a net, or a net of its own if it really is open.',
  },
  'circuit/net-single': {
    sentence: (d) => `Net ${d.net} is touched only once, by ${d.ref}.`,
    hint: 'Is the name spelt the same on both parts?',
  },
  'circuit/no-ground': {
    sentence: (d) => `No part touches the ground net ${d.net}.`,
    hint: 'Connect at least one part to ground.',
  },
  'circuit/unknown-net': {
    sentence: (d) => `${d.where} names net ${d.net}, which no part touches.`,
    hint: 'Check the spelling of the net.',
  },
  'circuit/unknown-part': {
    sentence: (d) => `${d.where} names part ${d.ref}, which is not in the circuit.`,
    hint: 'Check the designator.',
  },
  'circuit/no-dc-path': {
    sentence: (d) =>
      `Net ${d.net} has no DC path to ground: only ${list(d.parts)} ${(d.parts?.length ?? 0) === 1 ? 'touches' : 'touch'} it.`,
    hint: 'Add the resistor that sets its voltage, or check for a missing connection.',
  },
  'circuit/unknown-field': {
    sentence: (d) =>
      `${d.where}: ${d.text} is not a parameter of ${withArticle(d.detail ?? 'part')}${d.resembles ? `; ${d.resembles}?` : ''}.`,
    hint: 'It is kept, and has no effect: correct its name, or take it out.',
  },
  'circuit/unknown-model': {
    sentence: (d) =>
      `${d.ref}: nothing is known of a ${d.text}${d.resembles ? `; ${d.resembles}?` : ''}. ${d.detail}.`,
    hint: 'Correct the type number, or add a model of your own for it.',
  },
  'circuit/over-rating': {
    sentence: (d) => `${d.ref}: ${d.detail}.`,
    hint: 'Fit one that bears it, or find out what drives it so far.',
  },
  'change/stood-on': {
    sentence: (d) => `"${d.detail}" stands on "${d.text}".`,
    hint: 'Take the later one back first; otherwise what it put in stays, and the ohms told are with it.',
  },
  'change/replaced': {
    sentence: (d) => `${d.ref} is soldered once: "${d.detail}" replaces what "${d.text}" plans for it.`,
    hint: 'Drop the earlier plan, or take that part out of it.',
  },
  'change/ends-as-it-is': {
    sentence: (d) =>
      `${d.detail} stays as it is: what is planned for it ends where it began, with "${d.text}".`,
    hint: 'There is nothing to solder for it; drop both plans.',
  },
  'change/half-done': {
    sentence: (d) => `${d.ref}: ${d.detail}.`,
    hint: 'Look at the change that puts it there.',
  },
  'circuit/no-value': {
    sentence: (d) => `${d.ref} has no value.`,
    hint: 'Type what is printed on it, or measure it.',
  },
  'circuit/bad-value': {
    sentence: (d) => `${d.ref}: ${d.detail}.`,
    hint: 'Correct the value.',
  },
  'circuit/duplicate-ref': {
    sentence: (d) => `${d.ref} is there more than once.`,
    hint: 'Give each part its own designator.',
  },
  'circuit/source-loop': {
    sentence: (d) => `${list(d.parts)} form a loop without resistance, so their current is not defined.`,
    hint: 'Give one of them a resistance.',
  },
  'circuit/singular': {
    sentence: (d) =>
      `The circuit has no single solution at net ${d.net}: ${list(d.parts)} ${(d.parts?.length ?? 0) === 1 ? 'touches' : 'touch'} it.`,
    hint: 'Look for a net without a path to ground, or sources that contradict each other.',
  },
  'analysis/no-model': {
    sentence: (d) => `${d.ref} is a ${d.detail}, which has no electrical model.`,
    hint: 'Leave it out of the analysis, or describe it by the parts inside.',
  },
  'analysis/no-convergence': {
    sentence: (d) => `No operating point was found: net ${d.net} (${list(d.parts)}) did not settle.`,
    hint: 'Check supply polarity and values near that net.',
  },
  'analysis/no-time-step': {
    sentence: (d) =>
      `At ${d.detail} no further step could be taken: net ${d.net} (${list(d.parts)}) did not settle.`,
    hint: 'Look for a part without resistance or capacitance around that net, or ask for a shorter run.',
  },
  'analysis/no-source': {
    sentence: (d) => `${d.where}: ${d.detail}.`,
    hint: 'Name a signal or supply of the circuit.',
  },
  'analysis/bad-request': {
    sentence: (d) => `${d.where}: ${d.detail}.`,
    hint: 'Ask for something that can be computed.',
  },
  'analysis/no-steady-state': {
    sentence: (d) => `No periodic steady state was found: ${d.detail}.`,
    hint: 'A circuit that oscillates, latches or drifts by itself has none; try another level or frequency.',
  },
  'readout/not-defined': {
    sentence: (d) => `Readout ${d.where}: ${d.detail}.`,
    hint: 'Correct the readout’s definition.',
  },
  'readout/left-out': {
    sentence: (d) => `Readout ${d.where} was left out: the time given was over.`,
    hint: 'Ask with more time to have it.',
  },
  'model/unreadable': {
    sentence: (d) => `${d.detail}.`,
    hint: 'Give its name, its kind, and parameters such as BF=200.',
  },
  'change/no-part': {
    sentence: (d) => `There is no ${d.ref} in the circuit.`,
    hint: 'It may have been taken out, or have another designator: correct the step, or drop the change.',
  },
  'change/no-net': {
    sentence: (d) => `No part touches net ${d.net}.`,
    hint: 'It may have been cut or joined: correct the step, or drop the change.',
  },
  'change/taken': {
    sentence: (d) => `${d.ref} is in the circuit already.`,
    hint: 'Give the new part a designator of its own.',
  },
  'change/net-taken': {
    sentence: (d) => `There is a net ${d.net} already.`,
    hint: 'What a cut leaves over needs a name of its own.',
  },
  'change/pin-elsewhere': {
    sentence: (d) => `${d.text} is not on net ${d.net} but on ${d.detail}.`,
    hint: 'Name pins of the net that is cut.',
  },
  'change/pin-twice': {
    sentence: (d) => `${d.text} is named twice.`,
    hint: 'Name each pin once.',
  },
  'change/whole-net': {
    sentence: (d) => `The cut names every pin of net ${d.net}, so that nothing is cut.`,
    hint: 'Name the pins on one side of the cut.',
  },
  'change/joined-already': {
    sentence: (d) => `${d.net} and ${d.text} are one net already.`,
    hint: 'Name two nets that are apart.',
  },
  'change/there-already': {
    sentence: (d) => `${d.text} is on net ${d.net} already.`,
    hint: 'Name the net that it is to go to.',
  },
  'change/unknown': {
    sentence: (d) =>
      `There is no change "${d.text}"${(d.parts ?? []).length === 0 ? '' : `; there ${d.parts!.length === 1 ? 'is' : 'are'} ${list(d.parts)}`}.`,
    hint: 'Name a change by its id.',
  },
  'change/no-steps': {
    sentence: () => 'The change has no steps.',
    hint: 'Add a step: what is fitted, added, taken out, cut or wired.',
  },
  'change/unknown-set': {
    sentence: (d) => `There is no set "${d.text}".`,
    hint: 'Name a set of the unit, or let the change belong to every one.',
  },
  'change/unreadable': {
    sentence: (d) => `${d.detail}`,
    hint: 'Lines are: R4 -> 820 · +C30 470n n3 n4 · -R4 · lift C7.a · cut n3 at R4.a · wire a to b · R12.b to outR · swap R1.a R2.a.',
  },
  'path/invalid': {
    sentence: (d) => `Path, ${d.where}: ${d.detail}.`,
    hint: 'Correct the blocks, links and test points of the path.',
  },
  'path/missing': {
    sentence: () => 'There is no path to search: no block is known.',
    hint: 'Add blocks to the path, or propose them from the circuit.',
  },
  'path/unknown-block': {
    sentence: (d) => `The path has no block "${d.text}".`,
    hint: 'Name a block by its id.',
  },
  'rework/way': {
    sentence: ({ detail }) => detail ?? 'It does not come out.',
    hint: 'Ask for something else, or do it another way.',
  },
  'rework/nothing-to-change': {
    sentence: () => 'No part was chosen that may change.',
    hint: 'Choose at least one resistor, capacitor or inductor.',
  },
} satisfies Record<string, Entry>;

export type ErrorCode = keyof typeof CATALOGUE;

/** One finding: what is wrong (`message`), where (`ref`, `net`) and what to do (`hint`). */
export interface Problem {
  readonly code: ErrorCode;
  readonly message: string;
  readonly hint: string;
  readonly ref?: string;
  readonly net?: string;
}

/** Makes the human sentence and hint for a code and its data. */
export function problem(code: ErrorCode, data: ErrorData = {}): Problem {
  const entry: Entry = CATALOGUE[code];
  return {
    code,
    message: entry.sentence(data),
    hint: entry.hint,
    ...(data.ref === undefined ? {} : { ref: data.ref }),
    ...(data.net === undefined ? {} : { net: data.net }),
  };
}

/** Thrown for input that cannot be worked with, and where there is no answer; carries the problem, made here or found elsewhere. */
export class ZembleError extends Error {
  readonly problem: Problem;

  constructor(of: ErrorCode | Problem, data: ErrorData = {}) {
    const found = typeof of === 'string' ? problem(of, data) : of;
    super(found.message);
    this.name = 'ZembleError';
    this.problem = found;
  }

  get code(): ErrorCode {
    return this.problem.code;
  }
}
