import type { IntakeData } from '@zemble/contract';
import { draggedAt } from './evidence.ts';
import type { Path } from './path.ts';
import { modeShares } from './suspects.ts';
import { FAULT_MODES } from './symptom.ts';

/** What the complaint says of the outputs of a path. */
export interface Complaint {
  /** Blocks at the ends of the path that are said to be hit, and those that are said, or left, to be well. */
  readonly hit: readonly number[];
  readonly well: readonly number[];
}

/** An owner's account of which outputs are hit is wrong this often (common practice). */
const MISTOLD = 0.1;

const ALL =
  /\b(?:all|both|every|everything|everywhere|any|either|neither|no sound|nothing|silent|completely dead|totally dead)\b/;
/** Words of the complaint itself that speak of all outputs; a mere "no sound" may be meant of the one that is used. */
const ALL_PLAINLY =
  /\b(?:no|any) sound (?:at all|anywhere|(?:from|on|out of) (?:any|either|both|all))|\b(?:both|all|every) (?:channels?|sides?|outputs?|speakers?)\b|\b(?:completely|totally) (?:dead|silent)\b/;
const WELL = /\b(?:fine|ok|okay|good|well|works?|working|worked|not hit|unaffected|normal)\b/;
/** What turns a good word round, or takes it back for some of the time. */
const HARDLY =
  /\b(?:not|never|no longer|stopped|hardly|barely|sometimes|now and then|intermittent\w*|only works?|cannot)\b|n[’']t\b|\bworks? (?:only |again )?(?:when|after|if|once|until)\b|\bused to\b/;
/** "left, not right": what is named is not meant. */
const NOT_MEANT = /^\s*(?:and |but )?not\b/;
/** "all but the right", "everything except the headphones". */
const EXCEPT = /\b(?:all|both|every\w*)\b.*?\b(?:but|except|besides|apart from)\b(.*)$/i;
const ONLY = /\b(?:only|just)\b/;
const SIDES: Readonly<Record<string, string>> = { l: 'left', r: 'right' };
/** What is named when a side or a number stands before or behind one of these. */
const ENDS = ['channel', 'side', 'speaker', 'output', 'ear', 'one', 'ch', 'loudspeaker', 'headphone'];
/** Words that tell no output from another. */
const SAYING_NOTHING = new Set([
  ...'the a an of on at in out only just too also and is are it sound'.split(' '),
  ...['channel', 'output', 'side', 'one'],
]);

/** The words of a name: "ampL" is amp and left, "out_2" is out and 2. */
const wordsOf = (text: string): string[] =>
  text
    .replace(/([a-z])([A-Z0-9])/g, '$1 $2')
    .toLowerCase()
    .split(/[^\p{L}\d]+/u)
    .filter((w) => w !== '')
    .map((w) => SIDES[w] ?? w.replace(/(?<=\p{L}{3})s$/u, ''));

/** A clause without what is only compared with, and without a "right" that is no side. */
const plain = (clause: string): string =>
  clause
    .replace(/\bthan\b.*$/i, '')
    .replace(/\ball right\b/gi, 'fine')
    .replace(/\bright (?:away|now|after|before|at)\b/gi, '');

/**
 * The words of a clause of running text that may name an output: "left" may be what is left, and "2" a number of anything, where
 * nothing beside them speaks of an output.
 */
function namingWords(clause: string): string[] {
  const said = wordsOf(clause);
  return said.filter((w, i) => {
    if (!/^(?:left|right|\d+)$/.test(w)) return true;
    const [before = '', after = ''] = [said[i - 1], said[i + 1]];
    if (ENDS.includes(before) || ENDS.includes(after)) return true;
    return !/^\d+$/.test(w) && ['only', 'just', 'the'].includes(before);
  });
}

/**
 * What the complaint says of the outputs, for a path with two at least: "no sound at all", "left only", "channel 2", "the
 * headphones are fine", "right does not work". Outputs are known by the names of what feeds them alone. Null where nothing is said, or nothing that
 * a name matches, or where one output is said to be both.
 */
export function complaintOf(path: Path, { outputs = '', words = '' }: IntakeData): Complaint | null {
  const ends = path.sinks();
  if (ends.length < 2) return null;
  const names = namesOfEnds(path, ends);
  const named = (said: readonly string[]) =>
    ends.filter((_, i) => said.some((w) => !SAYING_NOTHING.has(w) && names[i]!.has(w)));
  const hit = new Set<number>();
  const well = new Set<number>();
  const field = outputs.toLowerCase();
  const excepted = named(wordsOf(EXCEPT.exec(outputs)?.[1] ?? ''));
  if (excepted.length > 0) excepted.forEach((end) => well.add(end));
  else
    for (const each of outputs.split(/[,;.]|\band\b|\bbut\b/i)) {
      const clause = plain(each);
      const isWell =
        NOT_MEANT.test(clause.toLowerCase()) ||
        (WELL.test(clause.toLowerCase()) && !HARDLY.test(clause.toLowerCase()));
      for (const end of named(wordsOf(clause))) (isWell ? well : hit).add(end);
    }
  if (hit.size === 0 && well.size === 0) {
    const isAll = ALL.test(field) || (field.trim() === '' && ALL_PLAINLY.test(words.toLowerCase()));
    if (isAll) return { hit: ends, well: [] };
    // Of the complaint's own words only what is said to be alone counts: an output may be named for any reason.
    const alone =
      field.trim() === ''
        ? words
            .split(/[,;.]|\bbut\b/i)
            .map(plain)
            .filter((c) => ONLY.test(c.toLowerCase()))
        : [];
    for (const clause of alone) {
      const isWell = WELL.test(clause.toLowerCase()) && !HARDLY.test(clause.toLowerCase());
      for (const end of named(namingWords(clause))) (isWell ? well : hit).add(end);
    }
  }
  // What is said to be hit and well says nothing.
  if ((hit.size === 0 && well.size === 0) || [...hit].some((end) => well.has(end))) return null;
  // What is named is all that is meant: the others are well, or, where only what is well is named, hit.
  const isHitNamed = hit.size > 0;
  for (const end of ends) if (!hit.has(end) && !well.has(end)) (isHitNamed ? well : hit).add(end);
  return hit.size === 0
    ? null
    : { hit: ends.filter((e) => hit.has(e)), well: ends.filter((e) => well.has(e)) };
}

/** For each end of a path the words by which it is known: of its own, and of what feeds no other end. */
function namesOfEnds(path: Path, ends: readonly number[]): ReadonlySet<string>[] {
  const reach = ends.map((end) => path.relevant(end)!);
  const all = ends.map((_, i) =>
    path.blocks.flatMap((b, at) =>
      reach[i]![at] === 1 && reach.every((other, j) => j === i || other[at] !== 1)
        ? [...wordsOf(b.name), ...wordsOf(b.id)]
        : [],
    ),
  );
  // A word that two ends have in common tells them from the others at most; one that all have tells nothing.
  return all.map((own) => new Set(own.filter((w) => !all.every((other) => other.includes(w)))));
}

/**
 * How well each block alone explains which outputs are hit: the chance of just that pattern under its ways of failing, with an
 * account that is wrong in one of ten; 1 for all where nothing is said.
 */
export function complaintWeights(path: Path, complaint: Complaint | null): number[] {
  if (!complaint) return path.blocks.map(() => 1);
  const { hit, well } = complaint;
  const shows = new Map(
    [...hit, ...well].map((end) => {
      const heard = path.heard(end)!;
      return [end, { ...heard, dragged: draggedAt(path, heard.blocks) }] as const;
    }),
  );
  const isJust = (at: (end: number) => boolean) => hit.every(at) && !well.some(at);
  return path.blocks.map((_, block) => {
    const chance = FAULT_MODES.map((mode) => {
      if (mode === 'output') {
        const outputs = path.outputsOf(block);
        const just = outputs.filter((o) => isJust((end) => shows.get(end)!.links.has(o)));
        return just.length / Math.max(1, outputs.length);
      }
      return isJust((end) => shows.get(end)![mode === 'drags' ? 'dragged' : 'blocks'][block] === 1) ? 1 : 0;
    });
    const explained = modeShares(path, block).reduce((sum, share, m) => sum + share * chance[m]!, 0);
    return MISTOLD + (1 - MISTOLD) * explained;
  });
}

/** What was understood of the complaint, as a sentence: "Complained of: Speaker L; Speaker R is well." */
export function complaintSentence(path: Path, { hit, well }: Complaint): string {
  const names = (blocks: readonly number[]) => blocks.map((b) => path.blocks[b]!.name).join(', ');
  if (well.length === 0) return `By the complaint every output is hit: ${names(hit)}.`;
  return `By the complaint ${names(hit)} ${hit.length === 1 ? 'is' : 'are'} hit, ${names(well)} ${well.length === 1 ? 'is' : 'are'} not.`;
}
