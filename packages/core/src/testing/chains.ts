import type { BlockData, EvidenceData, Hazard, PathData } from '@zemble/contract';

export function chain(n: number, of: (i: number) => Partial<BlockData> = () => ({})): PathData {
  return {
    blocks: Array.from({ length: n }, (_, i) => ({ id: `b${i}`, kind: 'block', ...of(i) })),
    links: Array.from({ length: n - 1 }, (_, i) => ({
      from: `b${i}`,
      to: `b${i + 1}`,
      carries: 'audio' as const,
    })),
  };
}
export const unitOf = (path: PathData, evidence: EvidenceData[] = [], hazards: Hazard[] = []) => ({
  unit: { hazards },
  circuit: { ground: '0', parts: [] },
  readouts: [],
  path,
  evidence,
});
export const saw = (
  at: string,
  what: EvidenceData['saw'],
  more: Partial<EvidenceData> = {},
): EvidenceData => ({
  at,
  saw: what,
  ...more,
});
export const PROVED = { conditions: ['probe proved'] };
