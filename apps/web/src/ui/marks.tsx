import type { Layer } from '@zemble/contract';
import type { Asked, Verdict, VerdictKind } from '@zemble/core';
import styles from './marks.module.css';

const SIZE = 12;

/** The shape of a layer, in its colour; always beside its word. */
export function LayerMark({ layer, size = SIZE }: { layer: Layer; size?: number }) {
  const stroke = `var(--zb-${layer})`;
  return (
    <svg width={size} height={size} viewBox="0 0 12 12" aria-hidden className={styles.mark}>
      {layer === 'marked' && (
        <rect x="2" y="2" width="8" height="8" fill="none" stroke={stroke} strokeWidth="1.8" />
      )}
      {layer === 'found' && <circle cx="6" cy="6" r="4.6" fill={stroke} />}
      {layer === 'planned' && <path d="M6 0.8 11.2 6 6 11.2 0.8 6Z" fill={stroke} />}
      {layer === 'proven' && (
        <>
          <circle cx="6" cy="6" r="4.6" fill="none" stroke={stroke} strokeWidth="1.8" />
          <circle cx="6" cy="6" r="1.8" fill={stroke} />
        </>
      )}
    </svg>
  );
}

export function LayerWord({ layer }: { layer: Layer }) {
  return (
    <span className="zb-layer-word" style={{ color: `var(--zb-${layer})` }}>
      <LayerMark layer={layer} /> {layer}
    </span>
  );
}

type VerdictTone = 'in' | 'edge' | 'out' | 'unsure';

const TONES: Record<VerdictKind, VerdictTone> = {
  in: 'in',
  edge: 'edge',
  high: 'out',
  low: 'out',
  open: 'out',
  short: 'out',
  lossy: 'out',
  'cannot say': 'unsure',
  'no marking': 'unsure',
};

const WORDS: Record<VerdictKind, string> = {
  in: 'in',
  edge: 'at the edge',
  high: 'out, high',
  low: 'out, low',
  open: 'open',
  short: 'short',
  lossy: 'out, ESR',
  'cannot say': 'cannot say',
  'no marking': 'no marking',
};

const ASKED: Record<Asked, string> = {
  leg: 'lift a leg',
  'red lead': 'red lead?',
  controls: 'controls?',
};

/** What a row says of a verdict: what would decide, where there is none. */
export const verdictWords = ({ kind, asks }: Pick<Verdict, 'kind' | 'asks'>): string =>
  asks === undefined ? WORDS[kind] : ASKED[asks];

export const verdictTone = (kind: VerdictKind): VerdictTone => TONES[kind];

/** Shape and word of a verdict: tick, half disc, bar or dotted ring. */
export function VerdictMark({ kind, words }: { kind: VerdictKind; words: string }) {
  const tone = TONES[kind];
  const colour = `var(--zb-${tone})`;
  return (
    <span className="zb-verdict" style={{ color: colour }}>
      <ToneMark tone={tone} /> {words}
    </span>
  );
}

export function ToneMark({ tone }: { tone: VerdictTone }) {
  const colour = `var(--zb-${tone})`;
  return (
    <svg width={SIZE} height={SIZE} viewBox="0 0 12 12" aria-hidden className={styles.mark}>
      {tone === 'in' && <path d="M1.5 6.5 4.8 9.8 10.5 2.2" fill="none" stroke={colour} strokeWidth="1.9" />}
      {tone === 'edge' && (
        <>
          <circle cx="6" cy="6" r="4.4" fill="none" stroke={colour} strokeWidth="1.6" />
          <path d="M6 1.6a4.4 4.4 0 0 0 0 8.8Z" fill={colour} />
        </>
      )}
      {tone === 'out' && <rect x="3.6" y="1" width="4.8" height="10" fill={colour} />}
      {tone === 'unsure' && (
        <circle
          cx="6"
          cy="6"
          r="4.4"
          fill="none"
          stroke={colour}
          strokeWidth="1.6"
          strokeDasharray="1.8 1.8"
        />
      )}
    </svg>
  );
}
