import { partResourceSchema, type FileChange, type ReadoutResource } from '@zemble/contract';
import {
  beepSentence,
  changeSentence,
  formatQuantity,
  formatSheetLine,
  formatWant,
  KINDS,
  readChanges,
  QUANTITY_KINDS,
  readPart,
  readReadout,
  stepWords,
  thingsSentence,
  unitOf,
  type UnreadPart,
} from '@zemble/core';
import type { Entry } from '../api/act.ts';
import { isStockEntry } from '../api/drawer.ts';
import { stockEntryWords } from '../api/stock.ts';

/** A part as a line of the sheet. */
export const lineOf = (part: UnreadPart): string => formatSheetLine(readPart(part, part.ref, []));

/** What somebody entered, in a few words; `current` is what stands there now, where that is known. */
export function changeWords(change: Entry, current?: unknown): string {
  if (isStockEntry(change)) return stockEntryWords(change);
  switch (change.type) {
    case 'set-workshop':
      return `The mains here has ${change.mainsHz} Hz.`;
    case 'create-unit':
      return `A new unit: ${change.values.name}.`;
    case 'add-part':
    case 'update-part':
      return lineOf(change.part);
    case 'remove-part':
    case 'remove-readout':
    case 'remove-photo':
      return 'Remove it.';
    case 'add-reading': {
      const part = partResourceSchema.safeParse(current);
      const kind = part.success && !change.aspect ? KINDS[part.data.part.kind].value : null;
      const value =
        typeof change.value === 'number'
          ? formatQuantity(change.value, QUANTITY_KINDS[kind ?? 'number'])
          : change.value;
      return `A reading${change.aspect ? ` of ${change.aspect}` : ''}: ${value}, ${change.condition}.`;
    }
    case 'amend-reading':
      return change.told.red === undefined
        ? 'The controls stood as drawn.'
        : `Red lead on ${change.told.red}.`;
    case 'add-readout':
    case 'update-readout':
      return readoutWords(change.readout);
    case 'add-change':
    case 'update-change':
      return circuitChangeWords(change.change);
    case 'add-evidence': {
      const { at, saw } = change.evidence;
      return `${at}: ${typeof saw === 'string' ? saw : `${saw.value} ${saw.unit}`}`;
    }
    case 'withdraw-evidence':
      return 'Take a test back.';
    case 'add-beep':
      return beepSentence(change.beep);
    case 'withdraw-beep':
      return 'Take a beep back.';
    case 'beep-through':
      return change.through === null ? 'It beeps through nothing.' : `It beeps through ${change.through}.`;
    case 'tick-step':
      return change.isDone ? change.words : `Not done after all: ${change.words}`;
    case 'update-photo':
      return change.values.turn === undefined ? 'Name or points of a photo.' : 'Turn a photo.';
    case 'add-note':
      return change.text;
    case 'update-unit':
      return fieldsWords(change.values);
    case 'put-things':
      return change.words ?? thingsSentence(change.things);
    case 'plan-values':
      return `Plan other values: ${Object.keys(change.values).join(', ')}.`;
    case 'drop-plan':
      return `Drop what is planned for ${change.ref}.`;
    case 'open-file':
      return `Open the unit file ${change.fileName}.`;
    case 'add-photo':
      return `A photo: ${change.name}.`;
    case 'batch':
      return change.words ?? change.acts.map((act) => changeWords(act)).join(' ');
    case 'undo':
      return 'Take a step back.';
  }
}

/** A change of the circuit: its name, what it does, and where it stands. */
export function circuitChangeWords(change: FileChange): string {
  const [read] = readChanges([change], [], []);
  return `${changeSentence(
    change.name,
    read!.steps.map((step) => stepWords(step)),
  )} (${change.state})`;
}

/** A readout with what is wanted of it. */
export function readoutWords(written: ReadoutResource['readout']): string {
  const readout = readReadout(written, written.name, []);
  const wanted = formatWant(readout.want, unitOf(readout));
  return wanted === '' ? `${readout.name}, nothing wanted` : `${readout.name}, wanted ${wanted}`;
}

const LONGEST = 200;

/** Fields of a unit with their values, long ones cut short. */
export function fieldsWords(values: Readonly<Record<string, unknown>>): string {
  return Object.entries(values)
    .filter(([, value]) => value !== undefined)
    .map(([field, value]) => {
      const text = typeof value === 'string' ? value : JSON.stringify(value);
      return `${field}: ${text.length > LONGEST ? `${text.slice(0, LONGEST)}…` : text}`;
    })
    .join(', ');
}
