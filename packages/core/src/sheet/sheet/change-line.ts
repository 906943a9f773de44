import type { Step } from '@zemble/contract';
import {
  applyChange,
  plannedForChange,
  changeWords,
  FreeNames,
  readPin,
  type ChangedCircuit,
} from '../../circuit/changes/index.ts';
import { KINDS, netNamed, type Circuit, type LayerCircuit, type Part } from '../../circuit/circuit/index.ts';
import { problem, type Problem } from '../../base/errors/index.ts';
import { parseSheetLine } from './sheet-line.ts';

export type ChangeLineResult =
  | { readonly ok: true; readonly steps: readonly Step[]; readonly words: string }
  | { readonly ok: false; readonly problem: Problem };

type Reading = readonly Step[] | Problem;

const bad = (detail: string, ref?: string): Problem =>
  problem('change/unreadable', { detail, ...(ref === undefined ? {} : { ref }) });
const isProblem = (reading: Reading): reading is Problem => 'code' in reading;

/**
 * Reads a change in the words of the bench, several with `;` between them, against the circuit as it is planned:
 *
 * - `R4 -> 820`, `Q2 -> 2N5088`, `C10 -> 470u 25V`: another value or type in the same place
 * - `+C30 470n n3 n4`, `+C30 470n n3 n4 via SW9`, `+R9 1k in series with C7.a`: a new part, through a switch, in a leg
 * - `-R4`: taken out
 * - `lift C7.a`, `cut n3 at R4.a C2.b as n3b`, `wire a to b`, `R12.b to outR`, `swap R1.a R2.a`
 *
 * @returns the steps and what they do, or what cannot be read or made
 */
export function parseChangeLine(line: string, circuit: Circuit): ChangeLineResult {
  const phrases = line
    .split(';')
    .map((phrase) => phrase.trim().replace(/\s+/g, ' '))
    .filter((phrase) => phrase !== '');
  if (phrases.length === 0) return { ok: false, problem: bad('There is no change to read.') };
  const start = plannedForChange(circuit);
  let now: ChangedCircuit = start;
  const steps: Step[] = [];
  for (const phrase of phrases) {
    const read = readPhrase(phrase, now);
    if (isProblem(read)) return { ok: false, problem: read };
    const outcome = applyChange(now, { steps: read });
    if (!outcome.ok) return outcome;
    steps.push(...read);
    now = outcome.circuit;
  }
  return { ok: true, steps, words: changeWords({ steps }, start) };
}

/** Forms of a phrase, each with what it reads. */
const FORMS: readonly (readonly [RegExp, (words: RegExpExecArray, circuit: LayerCircuit) => Reading])[] = [
  [/^(\S+) ?(?:->|→|=>) ?(.+)$/, ([, ref, rest], circuit) => fit(ref!, rest!, circuit)],
  [/^\+ ?(.+?) in series with (\S+)$/i, ([, part, pin], circuit) => inSeries(part!, pin!, circuit)],
  [/^\+ ?(.+?) via (\S+)$/i, ([, part, contact], circuit) => via(part!, contact!, circuit)],
  [/^\+ ?(.+)$/, ([, part], circuit) => add(part!, circuit)],
  [/^(?:-|− ?|remove |take out )(\S+)$/i, ([, ref]) => [{ do: 'remove', ref: ref! }]],
  [/^lift (\S+)$/i, ([, pin], circuit) => [{ do: 'lift', pin: pinNamed(pin!, circuit) }]],
  [
    /^cut (\S+) at (.+?)(?: as (\S+))?$/i,
    ([, net, pins, as], circuit) => [
      {
        do: 'cut',
        net: net!,
        pins: pins!.split(/[ ,]+/).map((pin) => pinNamed(pin, circuit)),
        as: as ?? new FreeNames(circuit).net(`${net}b`),
      },
    ],
  ],
  [/^(?:wire|join) (\S+) (?:to |and )?(\S+)$/i, ([, net, to]) => [{ do: 'join', net: net!, to: to! }]],
  [/^swap (\S+) (?:with |and )?(\S+)$/i, ([, one, other], circuit) => swap(one!, other!, circuit)],
  [
    /^(?:move )?(\S+\.\S+|[a-z]+\d+[+\-\u2212]) to (\S+)$/i,
    ([, pin, to], circuit) => [{ do: 'move', pin: pinNamed(pin!, circuit), to: to! }],
  ],
];

function readPhrase(phrase: string, circuit: LayerCircuit): Reading {
  for (const [form, read] of FORMS) {
    const words = form.exec(phrase);
    if (words) return read(words, circuit);
  }
  return bad(`"${phrase}" is no change that can be read.`);
}

/** What replaces a part is read as a line of the sheet, with the nets that the part is on. */
function fit(ref: string, rest: string, circuit: LayerCircuit): Reading {
  const part = circuit.parts.find((p) => p.ref === ref);
  if (!part) return problem('change/no-part', { ref });
  const other = circuit.parts.find((p) => p.ref === rest);
  if (other)
    return bad(
      `${rest} is a part of this unit and no value: type what ${ref} becomes, or "swap" with two pins.`,
      ref,
    );
  const nets = Object.entries(part.pins).map(([pin, net]) => `${pin}=${net}`);
  const read = parseSheetLine(`${ref} kind=${part.kind} ${rest} ${nets.join(' ')}`, circuit);
  if (!read.ok) return bad(read.problem.message, ref);
  const { ref: _ref, kind: _kind, pins: _pins, marked, ...fields } = read.part;
  if (read.part.kind !== part.kind)
    return bad(`${ref} is a ${KINDS[part.kind].words}, and ${rest} is none.`, ref);
  const isSaid = marked !== null && marked !== undefined;
  if (!isSaid && Object.keys(fields).length === 0) return bad(`${ref}: it is not said what is fitted.`, ref);
  return [
    {
      do: 'fit',
      ref,
      ...(isSaid ? { value: marked } : {}),
      ...(Object.keys(fields).length > 0 ? { part: fields } : {}),
    },
  ];
}

function partOf(line: string, circuit: LayerCircuit): Part | Problem {
  const read = parseSheetLine(line, circuit);
  return read.ok ? read.part : bad(read.problem.message);
}

/** "R9 1k across R2": the nets of R2 behind what is added. */
function atNets(line: string, circuit: LayerCircuit): string | Problem {
  const words = /^(.+?) (?:across|parallel to|in parallel with) (\S+)$/i.exec(line);
  if (!words) return line;
  const [, part, ref] = words;
  const beside = circuit.parts.find((p) => p.ref === ref);
  if (!beside) return problem('change/no-part', { ref: ref! });
  const nets = Object.values(beside.pins);
  if (nets.length !== 2)
    return bad(`${ref} has ${nets.length} legs: name the two nets that it goes across.`, ref);
  return `${part} ${nets.join(' ')}`;
}

function add(line: string, circuit: LayerCircuit): Reading {
  const at = atNets(line, circuit);
  if (typeof at !== 'string') return at;
  const part = partOf(at, circuit);
  return 'code' in part ? part : [{ do: 'add', part }];
}

/** A new part whose first leg goes through a new switch that is closed. */
function via(line: string, contact: string, circuit: LayerCircuit): Reading {
  const at = atNets(line, circuit);
  if (typeof at !== 'string') return at;
  const part = partOf(at, circuit);
  if ('code' in part) return part;
  const [pin, net] = Object.entries(part.pins)[0] ?? [];
  if (pin === undefined || net === undefined) return bad(`${part.ref} is on no net.`, part.ref);
  if (!/^[A-Za-z]/.test(contact))
    return bad(`"${contact}" is not a designator: it begins with a letter, as SW1 does.`);
  const between = new FreeNames(circuit).net('x1');
  return [
    { do: 'add', part: { ...part, pins: { ...part.pins, [pin]: between } } },
    { do: 'add', part: { ref: contact, kind: 'switch', pins: { a: net, b: between }, closed: true } },
  ];
}

/** A new part of two legs in the leg of another: that leg goes to a net of its own. */
function inSeries(line: string, pin: string, circuit: LayerCircuit): Reading {
  const whole = circuit.parts.find((p) => p.ref === pin);
  if (whole) {
    const ends = Object.entries(whole.pins).map(([name, net]) => `${pin}.${name} (at ${net})`);
    return bad(`At which end of ${pin}: ${ends.join(' or ')}?`, pin);
  }
  const at = readPin(circuit, pin);
  if (!at.ok) return at.problem;
  const net = netNamed(circuit, at.net);
  const between = new FreeNames(circuit).net('x1');
  const part = partOf(`${line} ${net} ${between}`, circuit);
  if ('code' in part) return part;
  if (Object.keys(part.pins).length !== 2) return bad(`${part.ref} has more than two legs.`, part.ref);
  return [
    { do: 'move', pin: `${at.ref}.${at.pin}`, to: between },
    { do: 'add', part },
  ];
}

/** A pin by its part and name, however it was written; as it was written where there is none such. */
function pinNamed(text: string, circuit: LayerCircuit): string {
  const at = readPin(circuit, text);
  return at.ok ? `${at.ref}.${at.pin}` : text;
}

/** Two pins change places. */
function swap(one: string, other: string, circuit: LayerCircuit): Reading {
  const [a, b] = [readPin(circuit, one), readPin(circuit, other)];
  if (!a.ok) return a.problem;
  if (!b.ok) return b.problem;
  const [from, to] = [netNamed(circuit, a.net), netNamed(circuit, b.net)];
  if (from === to) return bad(`${one} and ${other} are on the same net, ${from}.`);
  return [
    { do: 'move', pin: `${a.ref}.${a.pin}`, to },
    { do: 'move', pin: `${b.ref}.${b.pin}`, to: from },
  ];
}
