import { KINDS, kindOfRef, MODELS, netsOf, type Circuit } from '@zemble/core';

/**
 * Words that can stand where the last word of a line is being typed: nets of the circuit, pins by name for parts
 * whose order is ambiguous, type numbers. The first is the one that Tab takes.
 */
export function completions(line: string, circuit: Circuit): string[] {
  const match = /^(.*?)(\S*)$/s.exec(line);
  const head = match?.[1] ?? '';
  const word = match?.[2] ?? '';
  const ref = head.trim().split(/\s+/)[0] ?? '';
  if (ref === '') return [];
  const kind = kindOfRef(ref);
  const pin = /^([A-Za-z0-9]+)=(.*)$/.exec(word);
  const typed = pin ? pin[2]! : word;
  if (typed === '' && !pin) return [];
  const nets = netsOf(circuit);
  const startsAlike = (candidate: string) =>
    candidate.toLowerCase().startsWith(typed.toLowerCase()) && candidate !== typed;
  if (pin) return nets.filter(startsAlike).map((net) => `${pin[1]}=${net}`);
  const models = MODELS.filter((m) => kind === undefined || m.kind === kind).map((m) => m.name);
  const pins = kind && KINDS[kind].pins.length > 2 ? KINDS[kind].pins.map((p) => `${p}=`) : [];
  const used = new Set(head.trim().split(/\s+/));
  return [...models, ...nets, ...pins].filter((c) => startsAlike(c) && !used.has(c)).slice(0, MOST);
}

const MOST = 8;

/** The line with its last word replaced. */
export const completed = (line: string, word: string): string =>
  `${line.replace(/\S*$/, '')}${word}${word.endsWith('=') ? '' : ' '}`;
