import { LAYERS, MAINS_HZ, USUAL_MAINS_HZ, type Layer, type MainsHz } from '@zemble/contract';
import { parseValue, seededRandom, type QuantityKind, type Random } from '@zemble/core';

/** Bad input: told in one sentence on stderr, exit 2. */
export class UsageError extends Error {}

/** Options that stand alone. */
const FLAGS = ['in-circuit', 'propose', 'whole'];

/** `--name value` pairs, flags, and the words between them. */
export class Options {
  readonly words: readonly string[];
  private readonly named = new Map<string, string>();
  private readonly used = new Set<string>();

  constructor(args: readonly string[]) {
    const words: string[] = [];
    for (let i = 0; i < args.length; i += 1) {
      const arg = args[i]!;
      if (!arg.startsWith('--')) {
        words.push(arg);
        continue;
      }
      const [name, inline] = arg.slice(2).split(/=(.*)/s);
      if (this.named.has(name!)) throw new UsageError(`--${name} is given twice.`);
      const value = inline ?? (FLAGS.includes(name!) ? 'true' : args[(i += 1)]);
      if (value === undefined) throw new UsageError(`--${name} needs a value.`);
      this.named.set(name!, value);
    }
    this.words = words;
  }

  text(name: string): string | undefined {
    this.used.add(name);
    return this.named.get(name);
  }

  /** Whether a flag is there. */
  flag(name: string): boolean {
    const text = this.text(name) ?? 'false';
    if (text !== 'true' && text !== 'false')
      throw new UsageError(`--${name} stands alone, or is true or false.`);
    return text === 'true';
  }

  requiredText(name: string): string {
    const value = this.text(name);
    if (value === undefined) throw new UsageError(`--${name} is missing.`);
    return value;
  }

  /** A number above zero in any notation, or the usual one. */
  positive(name: string, usual: number, kind: QuantityKind = 'number'): number {
    const text = this.text(name);
    if (text === undefined) return usual;
    const parsed = parseValue(text, { kind, purpose: 'reading' });
    if (!parsed.ok || !(parsed.readings[0].value > 0))
      throw new UsageError(`--${name} must be a number above zero, not "${text}".`);
    return parsed.readings[0].value;
  }

  layer(): Layer {
    const text = this.text('layer') ?? 'marked';
    const layer = LAYERS.find((l) => l === text);
    if (!layer) throw new UsageError(`--layer is one of ${LAYERS.join(', ')}, not "${text}".`);
    return layer;
  }

  /** The frequency of the mains, Hz; the usual one unless `--mains` says another. */
  mains(): MainsHz {
    const text = this.text('mains') ?? String(USUAL_MAINS_HZ);
    const hz = MAINS_HZ.find((m) => String(m) === text);
    if (!hz) throw new UsageError(`--mains is ${MAINS_HZ.join(' or ')}, not "${text}".`);
    return hz;
  }

  /** A whole number above zero, or the usual one. */
  count(name: string, usual: number): number {
    const number = this.positive(name, usual);
    if (!Number.isInteger(number))
      throw new UsageError(`--${name} must be a whole number, not "${this.text(name)}".`);
    return number;
  }

  /** A whole number above zero, at most so many: what is asked for must fit into memory and a life. */
  bounded(name: string, usual: number, most: number): number {
    const number = this.count(name, usual);
    if (number > most) throw new UsageError(`--${name} is at most ${most}, not ${number}.`);
    return number;
  }

  /** `--seed`, a whole number, 1 unless it is given. */
  seed(): number {
    const text = this.text('seed') ?? '1';
    if (!/^\d{1,10}$/.test(text)) throw new UsageError(`--seed must be a whole number, not "${text}".`);
    return Number(text);
  }

  /** Random numbers from `--seed`. */
  random(): Random {
    return seededRandom(this.seed());
  }

  /** A clock that runs out after `--seconds`: asked before each step of a search. */
  untilSeconds(usual: number): () => boolean {
    const end = performance.now() + 1000 * this.positive('seconds', usual);
    return () => performance.now() < end;
  }

  /** Refuses options that no verb asked for: they would be silently without effect. */
  refuseUnknown(): void {
    const unknown = [...this.named.keys()].find((name) => !this.used.has(name));
    if (unknown !== undefined) throw new UsageError(`--${unknown} is not an option of this verb.`);
  }
}
