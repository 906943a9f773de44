import type { Change, Step } from '@zemble/contract';
import { kindOfRef, KINDS, netNamed, printedText, type LayerPart } from '../circuit/index.ts';
import { applyChange, unmeasuredPart, type ChangedCircuit, type Inverse } from './apply.ts';
import { readPin } from './pin.ts';

/** A part in a few words: "R4 1k", "Q2 2N3904", "J1". */
const named = (part: LayerPart): string => `${part.ref} ${printedText(part, part.value)}`.trim();

/** The value or type by which a fit differs: "820", "2N5088". */
function fitted(step: Extract<Step, { do: 'fit' }>, part: LayerPart | undefined): string {
  const { model, technology, voltage } = step.part ?? {};
  const value = step.value ?? undefined;
  const kind = part?.kind ?? kindOfRef(step.ref);
  const words = [
    value === undefined ? '' : kind ? printedText({ kind }, value) : String(value),
    typeof model === 'string' ? model : '',
    typeof technology === 'string' ? technology : '',
    typeof voltage === 'number' ? `${voltage} V` : '',
  ];
  return words.filter((w) => w !== '').join(' ');
}

const list = (words: readonly string[]): string =>
  words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)!}`;

const netsWords = (part: Pick<LayerPart, 'pins'>): string => {
  const nets = Object.values(part.pins);
  return nets.length === 2 ? `between ${nets[0]!} and ${nets[1]!}` : `at ${list(nets)}`;
};

/** What a step does, as a part of a sentence: "R4: 820 instead of 1k", "C30 470n added between x1 and n4". */
export function stepWords(step: Step, before?: Pick<ChangedCircuit, 'parts'>): string {
  switch (step.do) {
    case 'fit': {
      const part = before?.parts.find((p) => p.ref === step.ref);
      const old = part ? printedText(part, part.value) : '';
      return `${step.ref}: ${fitted(step, part) || 'another one'}${old === '' ? '' : ` instead of ${old}`}`;
    }
    case 'add': {
      const { marked = null, ...part } = step.part;
      return `${named({ ...part, value: marked } as LayerPart)} added ${netsWords(step.part)}`;
    }
    case 'remove': {
      const part = before?.parts.find((p) => p.ref === step.ref);
      return `${part ? named(part) : step.ref} taken out`;
    }
    case 'lift':
      return `${step.pin} lifted`;
    case 'cut':
      return `${step.net} cut, with ${list(step.pins)} on ${step.as}`;
    case 'join':
      return `${step.net} wired to ${step.to}`;
    case 'move': {
      const at = before && readPin(before, step.pin);
      return `${step.pin} moved${at?.ok ? ` from ${at.net}` : ''} to ${step.to}`;
    }
  }
}

/** What has to be done to take a step back: a sentence without its full stop. */
function undoWords(step: Step, inverse: Inverse, before: ChangedCircuit): string {
  switch (inverse.do) {
    case 'refit': {
      const old = printedText(
        inverse.part,
        (inverse.unmeasured ?? unmeasuredPart(before, inverse.part.ref))?.value,
      );
      return `Fit the old ${old || KINDS[inverse.part.kind].words} for ${inverse.part.ref} again: it is in the bag marked ${inverse.part.ref}`;
    }
    case 'take out':
      return `Take ${inverse.ref} out`;
    case 'put back':
      return `Put ${named(inverse.unmeasured ?? unmeasuredPart(before, inverse.part.ref) ?? inverse.part)} back ${netsWords(inverse.part)}: it is in the bag marked ${inverse.part.ref}`;
    case 'rewire': {
      switch (step.do) {
        case 'lift':
          return `Solder ${step.pin} back to ${inverse.pins[0]!.net}`;
        case 'cut':
          return `Bridge the cut at ${netNamed(before, step.net)}, so that ${list(step.pins)} ${step.pins.length === 1 ? 'is' : 'are'} on it again`;
        case 'join':
          return `Take the wire between ${step.net} and ${step.to} out`;
        default:
          return inverse.pins.map(({ ref, pin, net }) => `Put ${ref}.${pin} back on ${net}`).join(', ');
      }
    }
  }
}

/** What has to be done, in order, to take a change back: a sentence each step, the last step first. Empty where it cannot be made. */
export function undoSentences(change: Change, before: ChangedCircuit): string[] {
  const outcome = applyChange(before, change);
  if (!outcome.ok) return [];
  return outcome.made
    .map(({ inverse, before: at }, i) => `${undoWords(change.steps[i]!, inverse, at)}.`)
    .reverse();
}

/** A change by its name and what it does, as a sentence; one that is named by what it does says it once. */
export function changeSentence(name: string, does: readonly string[]): string {
  const words = does.join('; ');
  return words === '' || words.startsWith(name) || name === words
    ? `${words || name}.`
    : `${name}: ${words}.`;
}

/** What a change does, in one line. */
export function changeWords(change: Pick<Change, 'steps'>, before?: ChangedCircuit): string {
  const outcome = before && applyChange(before, change);
  return change.steps
    .map((step, i) => stepWords(step, outcome?.ok ? outcome.made[i]!.before : before))
    .join('; ');
}
