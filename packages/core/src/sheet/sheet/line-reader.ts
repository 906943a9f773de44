import type { PartKind } from '@zemble/contract';
import { asTypedNet, isPassive, KINDS, type KnownNets, type Part } from '../../circuit/circuit/index.ts';
import { problem, type Problem } from '../../base/errors/index.ts';
import {
  pinByNumber,
  pinoutOf,
  sharedPins,
  unitOfPackage,
  type Packaged,
} from '../../circuit/pinout/index.ts';
import { readPart } from '../formats/index.ts';
import { modelNamed, MODELS } from '../../circuit/models/index.ts';
import { bandColour, parseTolerance, parseValue } from '../../base/quantity/index.ts';
import {
  fieldNamed,
  fieldsByUnit,
  fieldsOf,
  kindOfWord,
  potCode,
  turnsRatio,
  wordFields,
} from './line-words.ts';

export type SheetLineResult =
  { readonly ok: true; readonly part: Part } | { readonly ok: false; readonly problem: Problem };

export const unreadable = (detail: string, ref?: string): Extract<SheetLineResult, { ok: false }> => ({
  ok: false,
  problem: problem('sheet/unreadable', { detail, ref }),
});

/** A link that looks like a resistor: its only value is none. */
const ZERO_OHM = /^0+(?:[.,]?0*)?\s*(?:r|r0+|ohms?|\u03a9)$/i;
const FEWEST_BANDS = 3;
const MOST_BANDS = 6;

/** The words with their article. */
const named = (words: string) => `${/^([aeiou]|LED)/.test(words) ? 'an' : 'a'} ${words}`;

/** A way in which a line can be understood, and how far it is from plain; infinite where it cannot. */
export interface LineReading {
  readonly result: SheetLineResult;
  readonly cost: number;
}

/** How a line was understood: the nets by position, and the words before and after them. */
interface Split {
  readonly head: readonly string[];
  readonly nets: readonly string[];
  readonly tail: readonly string[];
}

/** Pins by their numbers, of a type whose order is known or said: "U1A TL072 3=in 2=m 1=out". */
function numbersOf(packaged: Packaged): (name: string) => string | undefined {
  const isSure = pinoutOf(packaged)?.isAssumed === false;
  const own = unitOfPackage(packaged.ref)?.unit ?? 'A';
  return (name) => {
    const found = isSure && /^\d+$/.test(name) ? pinByNumber(packaged, Number(name)) : undefined;
    return found && (found.unit === null || found.unit === own) ? found.pin : undefined;
  };
}

/** Reads the words behind a designator as a part of one kind. */
export class LineReader {
  private readonly ref: string;
  private readonly kind: PartKind;
  private readonly known: KnownNets | undefined;
  private readonly plain: readonly string[];
  private readonly pairs: readonly (readonly [name: string, value: string])[];

  /** @param known where words for the ground are looked up; without it they are names like others */
  constructor(ref: string, kind: PartKind, words: readonly string[], known?: KnownNets) {
    this.ref = ref;
    this.kind = kind;
    this.known = known;
    const pairs = words.map((word) => /^([^=]+)=(.+)$/.exec(word));
    this.plain = words.filter((word) => !word.includes('='));
    const said = pairs.flatMap((match) => (match ? [[match[1]!, match[2]!] as const] : []));
    const packaged = this.packaged(said);
    const pinOf = numbersOf(packaged);
    // The supply of a package is said by one of its units.
    this.shared = unitOfPackage(ref) ? sharedPins(packaged) : [];
    this.pairs = said.map(([name, value]) => [pinOf(name) ?? name, value] as const);
    this.broken = words.find((word, i) => word.includes('=') && !pairs[i]);
  }

  private readonly broken: string | undefined;

  private readonly shared: readonly string[];

  /** What tells the pins of the part. */
  private packaged(pairs: LineReader['pairs']): Packaged {
    const said = (field: string) => pairs.find(([name]) => name.toLowerCase() === field)?.[1];
    return {
      ref: this.ref,
      kind: this.kind,
      model: said('model') ?? this.plain.find((word) => modelNamed(word, this.kind)),
      package: said('package'),
      pinout: said('pinout'),
    };
  }

  /**
   * The part, with its nets where everything before them can stand before and everything after can stand after; of several
   * such places the one that gives the part its value, then the one with the fewest words before the nets.
   */
  read(): LineReading {
    if (this.broken !== undefined) {
      const detail = `${this.ref}: "${this.broken}" says nothing on one side of its "=".`;
      return { result: unreadable(detail, this.ref), cost: Number.POSITIVE_INFINITY };
    }
    const info = KINDS[this.kind];
    const open = this.openPins();
    const positional = info.hasFreePins === true ? this.freeSplits() : this.splits(open);
    const read = positional
      .map((split) => this.attempt(split))
      .filter((a) => a !== undefined)
      .sort((a, b) => a.cost - b.cost);
    return read[0] ?? { result: this.refused(open), cost: Number.POSITIVE_INFINITY };
  }

  /** Pins that no pair names. */
  private openPins(): string[] {
    const { pins } = KINDS[this.kind];
    const taken = new Set(this.pairs.map(([name]) => this.pinNamed(name)));
    return pins.filter((pin) => !taken.has(pin));
  }

  private pinNamed(name: string): string | undefined {
    const { pins } = KINDS[this.kind];
    return pins.find((p) => p === name) ?? pins.find((p) => p.toLowerCase() === name.toLowerCase());
  }

  private splits(open: readonly string[]): Split[] {
    const { optionalPins = [] } = KINDS[this.kind];
    const optional = [...optionalPins, ...this.shared];
    const least = open.filter((pin) => !optional.includes(pin)).length;
    // Of a kind whose nets may be few or many, its own word right behind the designator is no net where there are enough without.
    const isSaid = optionalPins.length > 0 && kindOfWord(this.plain[0] ?? '') === this.kind;
    const first = isSaid && this.plain.length > least ? 1 : 0;
    const found: Split[] = [];
    for (let count = Math.min(open.length, this.plain.length - first); count >= least; count -= 1)
      for (let at = first; at + count <= this.plain.length; at += 1)
        found.push({
          head: this.plain.slice(0, at),
          nets: this.plain.slice(at, at + count),
          tail: this.plain.slice(at + count),
        });
    return found;
  }

  /** A box takes any number of nets: all words but those of its kind. */
  private freeSplits(): Split[] {
    const nets = this.plain.filter((word) => kindOfWord(word) !== this.kind);
    return [{ head: [], nets, tail: [] }];
  }

  private attempt(split: Split): LineReading | undefined {
    const draft = new Draft(this.ref, this.kind, this.shared, this.known);
    for (const [name, value] of this.pairs) if (!draft.pair(name, value)) return undefined;
    let wordsBefore = 0;
    let colours: string[] = [];
    for (const [i, word] of split.head.entries()) {
      if (draft.canBeBand(word, colours)) {
        colours.push(word);
        const next = split.head[i + 1];
        if (next !== undefined && draft.canBeBand(next, colours)) continue;
        if (!draft.bands(colours)) return undefined;
        colours = [];
        continue;
      }
      const taken = draft.take(word, true);
      if (taken === undefined) return undefined;
      if (taken === 'word') wordsBefore += 1;
    }
    for (const word of split.tail) if (draft.take(word, false) === undefined) return undefined;
    if (!draft.nets(split.nets)) return undefined;
    const isMissing = KINDS[draft.kind].needsValue && draft.marked === undefined;
    if (isMissing && split.nets[0] !== undefined && this.looksLikeValue(split.nets[0])) return undefined;
    if (!draft.hasModel && split.nets[0] !== undefined && modelNamed(split.nets[0], this.kind))
      return undefined;
    const result = draft.part();
    const isFree = KINDS[draft.kind].hasFreePins === true;
    // A word of the grammar is the name of a net only where the line has no other: "C9 10u b cap" and "C8 10u polarised b cap".
    const wordNets = split.nets.filter((net) => wordFields(this.kind, net) !== undefined).length;
    const cost =
      (isMissing ? VALUE_COST : 0) + (isFree ? FREE_COST : 0) + wordsBefore + WORD_NET_COST * wordNets;
    return result.ok ? { result, cost } : undefined;
  }

  private looksLikeValue(word: string): boolean {
    const quantity = KINDS[this.kind].value;
    return quantity !== null && /[a-z]/i.test(word) && parseValue(word, { kind: quantity }).ok;
  }

  /** The most useful thing to say of a line that cannot be read: the nets are taken to be its last words. */
  private refused(open: readonly string[]): SheetLineResult {
    const { ref, kind, plain } = this;
    const { words, pins, value } = KINDS[kind];
    const say = (detail: string) => unreadable(`${ref}: ${detail}`, ref);
    const draft = new Draft(ref, kind, this.shared, this.known);
    for (const [name, text] of this.pairs) if (!draft.pair(name, text)) return say(draft.why);
    const netCount = Math.min(plain.length, open.length);
    const head = plain.slice(0, plain.length - netCount);
    for (const word of head) {
      if (draft.take(word, true) !== undefined) continue;
      if (draft.why !== '') return say(draft.why);
      return say(
        value !== null && draft.marked === undefined
          ? `"${word}" is neither a value nor one of its ${pins.length || ''} nets.`
          : `"${word}" is one word too many; ${named(words)} has the pins ${pins.join(', ')}.`,
      );
    }
    const first = plain[head.length];
    const isTaken =
      netCount === open.length &&
      first !== undefined &&
      ((draft.marked === undefined && this.looksLikeValue(first)) || modelNamed(first, kind) !== undefined);
    const given = isTaken ? netCount - 1 : netCount;
    if (isTaken) {
      const nets = given === 0 ? 'no net is' : given === 1 ? 'only one net is' : `only ${given} nets are`;
      return say(`${named(words)} has the pins ${pins.join(', ')}; ${nets} given for ${open.length}.`);
    }
    const missing = open.slice(given);
    const none = missing.length === pins.length;
    return say(
      `${named(words)} has the pins ${pins.join(', ')}; ${none ? 'none is' : `${missing.join(', ')} ${missing.length === 1 ? 'is' : 'are'} not`} connected.`,
    );
  }
}

/** Kinds that are told by a type number although the library has no models of them. */
const TYPED: readonly PartKind[] = ['timer555', 'mosfet', 'regulator', 'clock', 'relay'];

/** A part that needs a value and has none is the last way in which a line is understood. */
export const VALUE_COST = 100;
/** What says something of the part is rather that than a net. */
const WORD_NET_COST = 4;
/** A box takes any words for nets, so that whatever reads the line as more comes first. */
const FREE_COST = 50;

/** A part in the making. What it does not take it answers with false or undefined, and says why where it knows. */
class Draft {
  kind: PartKind;
  why = '';
  private readonly ref: string;
  private readonly shared: readonly string[];
  private readonly known: KnownNets | undefined;
  private readonly fields = new Map<string, unknown>();
  private readonly pins = new Map<string, string>();

  constructor(ref: string, kind: PartKind, shared: readonly string[], known: KnownNets | undefined) {
    this.ref = ref;
    this.kind = kind;
    this.shared = shared;
    this.known = known;
  }

  get marked(): unknown {
    return this.fields.get('marked');
  }

  get hasModel(): boolean {
    return this.fields.has('model');
  }

  part(): SheetLineResult {
    const info = KINDS[this.kind];
    const missing = info.pins.filter(
      (p) => !this.pins.has(p) && info.optionalPins?.includes(p) !== true && !this.shared.includes(p),
    );
    if (missing.length > 0) return unreadable(`${this.ref}: ${missing.join(', ')} not connected.`, this.ref);
    if (info.needsValue && this.marked === undefined) this.fields.set('marked', null);
    const listed = info.pins.filter((p) => this.pins.has(p));
    const others = [...this.pins.keys()].filter((p) => !info.pins.includes(p));
    const problems: Problem[] = [];
    const file = {
      ref: this.ref,
      kind: this.kind,
      pins: Object.fromEntries([...listed, ...others].map((p) => [p, this.pins.get(p)!])),
      ...Object.fromEntries(this.fields),
    };
    const part = readPart(file, this.ref, problems);
    return problems[0] ? unreadable(problems[0].message, this.ref) : { ok: true, part };
  }

  nets(nets: readonly string[]): boolean {
    const { pins, hasFreePins } = KINDS[this.kind];
    const open = pins.filter((p) => !this.pins.has(p));
    nets.forEach((net, i) => {
      const pin = open[i] ?? (hasFreePins === true ? String(i - open.length + 1) : undefined);
      if (pin !== undefined) this.setPin(pin, net);
    });
    return true;
  }

  pair(name: string, value: string): boolean {
    const { pins, hasFreePins } = KINDS[this.kind];
    const pin = pins.find((p) => p === name) ?? pins.find((p) => p.toLowerCase() === name.toLowerCase());
    if (pin !== undefined) {
      this.setPin(pin, value);
      return true;
    }
    if (name.toLowerCase() === 'kind') return kindOfWord(value) === this.kind;
    if (name.toLowerCase() === 'model') {
      this.fields.set('model', value);
      return true;
    }
    const field = fieldNamed(this.kind, name);
    if (field !== undefined) return this.setField(field, value);
    if (hasFreePins === true) {
      this.setPin(name, value);
      return true;
    }
    this.why = `it has neither a pin nor a field "${name}"; its pins are ${pins.join(', ')}.`;
    return false;
  }

  private setPin(pin: string, net: string): void {
    this.pins.set(pin, this.known === undefined ? net : asTypedNet(net, this.known));
  }

  private setField(name: string, value: string): boolean {
    const field = fieldsOf(this.kind)[name]!;
    if (field.type === 'quantity') {
      const parsed = parseValue(value, { kind: field.of, purpose: 'reading' });
      if (!parsed.ok) {
        this.why = parsed.problem.message;
        return false;
      }
      this.fields.set(name, parsed.readings[0].value);
      return true;
    }
    this.fields.set(name, field.type === 'flag' ? !/^(?:no|false|0|off)$/i.test(value) : value);
    return true;
  }

  /** A word without "=": undefined when it is nothing that can stand here, else what it was. */
  take(word: string, isBeforeNets: boolean): 'value' | 'word' | undefined {
    const said = wordFields(this.kind, word);
    if (said) {
      for (const [name, value] of Object.entries(said)) this.fields.set(name, value);
      return 'word';
    }
    if (kindOfWord(word) === this.kind) return 'word';
    const model = modelNamed(word, this.kind);
    if (model && !this.hasModel) {
      this.fields.set('model', model.name);
      return 'value';
    }
    const tolerance = /%/.test(word) ? parseTolerance(word) : undefined;
    if (tolerance !== undefined) {
      this.fields.set('tolerance', tolerance);
      return 'value';
    }
    if (this.takeValue(word, isBeforeNets)) return 'value';
    if (this.why !== '') return undefined;
    if (isBeforeNets && this.takesModel(word)) {
      this.fields.set('model', word);
      return 'value';
    }
    return undefined;
  }

  /** A type number that nothing is known of: only kinds that are told by one have it. */
  private takesModel(word: string): boolean {
    const isTyped = MODELS.some((m) => m.kind === this.kind) || TYPED.includes(this.kind);
    return isTyped && !this.hasModel && /^[A-Za-z0-9][A-Za-z0-9./-]*$/.test(word);
  }

  /** The main value stands before the nets; a rating is told by its unit, wherever it stands. */
  private takeValue(word: string, isBeforeNets: boolean): boolean {
    const quantity = KINDS[this.kind].value;
    if (isBeforeNets && quantity !== null && this.marked === undefined) {
      if (this.kind === 'resistor' && ZERO_OHM.test(word)) {
        this.kind = 'jumper';
        return true;
      }
      const turns = this.kind === 'transformer' ? turnsRatio(word) : undefined;
      if (turns !== undefined) {
        this.fields.set('marked', turns);
        return true;
      }
      const code = this.kind === 'potentiometer' ? potCode(word) : undefined;
      const parsed = parseValue(code?.value ?? word, { kind: quantity });
      if (parsed.ok) {
        const { value, tolerance, voltage } = parsed.readings[0];
        if (isPassive(this.kind) && !(value > 0)) {
          this.why = `${named(KINDS[this.kind].words)} of ${word} is not above zero.`;
          return false;
        }
        this.fields.set('marked', value);
        if (code) this.fields.set('taper', code.taper);
        if (tolerance !== undefined && !this.fields.has('tolerance')) this.fields.set('tolerance', tolerance);
        if (voltage !== undefined) this.fields.set('voltage', voltage);
        return true;
      }
    }
    for (const [name, field] of fieldsByUnit(this.kind, word)) {
      const parsed = parseValue(word, { kind: field.of });
      if (!parsed.ok) continue;
      this.fields.set(name, parsed.readings[0].value);
      return true;
    }
    return false;
  }

  /** Whether a word may be the next colour of a resistor's bands. */
  canBeBand(word: string, before: readonly string[]): boolean {
    return (
      this.kind === 'resistor' &&
      this.marked === undefined &&
      before.length < MOST_BANDS &&
      bandColour(word) !== undefined
    );
  }

  bands(colours: readonly string[]): boolean {
    if (colours.length < FEWEST_BANDS) return false;
    const parsed = parseValue(colours.join(' '), { kind: 'resistor' });
    if (!parsed.ok) return false;
    const { value, tolerance } = parsed.readings[0];
    this.fields.set('marked', value);
    if (tolerance !== undefined) this.fields.set('tolerance', tolerance);
    return true;
  }
}
