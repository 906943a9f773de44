import { parseTraceLine, retraced, type BeepData, type Part } from '@zemble/core';

/** Parts and beeps from lines, as a user would type them while tracing. Throws on a line that cannot be read. */
export function tracedFromLines(lines: string): { parts: readonly Part[]; beeps: BeepData[] } {
  const parts: Part[] = [];
  const beeps: BeepData[] = [];
  for (const line of lines
    .split('\n')
    .map((l) => l.trim())
    .filter((l) => l !== '')) {
    const read = parseTraceLine(line, { ground: '0', parts, beeps });
    if (!read.ok) throw new Error(`${line}: ${read.problem.message}`);
    if (read.kind === 'parts') parts.push(...read.parts);
    else beeps.push(read.beep);
  }
  return { parts: retraced({ ground: '0', parts, beeps }), beeps };
}
