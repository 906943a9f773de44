import { unitOf, type RangesBySetting, type Readout } from '@zemble/core';
import { Button, Spin } from 'antd';
import { useMemo, useState } from 'react';
import { LatestRunner } from '../../compute/runner.ts';
import { useLatest } from '../../compute/use-latest.ts';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { answerText, readoutText } from '../../ui/readout-value.ts';
import type { UnitDocument } from '@zemble/core';
import styles from './changes.module.css';

type Compared = RangesBySetting | { readonly sentence: string };
const comparers = new LatestRunner<{ document: UnitDocument; readoutId: string }, Compared>(
  'shown',
  async (engine, request) => engine.compareRanges(request),
);

/** The ranges of a readout over its knob in every setting, on one axis. */
export function SettingRanges() {
  const { document } = useUnitContext();
  const [openId, setOpenId] = useState<string | null>(null);
  const ranges = document.readouts.filter((r) => r.kind === 'range');
  if (ranges.length === 0 || (document.settings ?? []).length === 0) return null;
  return (
    <div>
      {ranges.map((r) => (
        <Button
          key={r.id}
          size="small"
          type="text"
          aria-expanded={r.id === openId}
          onClick={() => setOpenId(r.id === openId ? null : r.id)}
        >
          {r.name} in every setting
        </Button>
      ))}
      {openId !== null && <Ranges key={openId} readout={ranges.find((r) => r.id === openId)!} />}
    </div>
  );
}

function Ranges({ readout }: { readonly readout: Readout }) {
  const { document } = useUnitContext();
  const request = useMemo(() => ({ document, readoutId: readout.id }), [document, readout.id]);
  const { made, isCurrent, why } = useLatest(comparers, request);
  if (why !== null) return <p className="zb-problem">The ranges could not be compared: {why}</p>;
  if (!made) return <Spin size="small" />;
  if ('sentence' in made.answer) return <p className="zb-problem">{made.answer.sentence}</p>;
  const { ranges, common } = made.answer;
  const unit = unitOf(readout, document.readouts);
  const ends = ranges.flatMap((r) => (r.ends ? [r.ends.min, r.ends.max] : []));
  const isLog = ends.every((v) => v > 0);
  const scale = (v: number) => (isLog ? Math.log(v) : v);
  const [low, high] = [Math.min(...ends.map(scale)), Math.max(...ends.map(scale))];
  const at = (v: number) => `${(100 * (scale(v) - low)) / Math.max(high - low, 1e-12)}%`;
  const text = (e: { readonly min: number; readonly max: number }) =>
    answerText({ ok: true, value: e.max - e.min, range: e }, unit);
  return (
    <figure aria-busy={!isCurrent} aria-label={`${readout.name} in every setting`}>
      <ul className={styles.ranges}>
        {ranges.map(({ setting, ends: own, sentence }) => (
          <li key={setting?.id ?? ''}>
            <span>{setting ? (setting.name ?? setting.id) : 'as drawn'}</span>
            <span className={styles.rangeAxis}>
              {common && (
                <span
                  className={styles.rangeCommon}
                  style={{ left: at(common.min), right: `calc(100% - ${at(common.max)})` }}
                />
              )}
              {own && (
                <span
                  className={styles.rangeBar}
                  style={{ left: at(own.min), right: `calc(100% - ${at(own.max)})` }}
                />
              )}
            </span>
            <span className="zb-number">{own ? text(own) : (sentence ?? readoutText(null, unit))}</span>
          </li>
        ))}
      </ul>
      <figcaption className="zb-dim">
        {common ? `All of them reach ${text(common)}.` : 'They reach nothing in common.'}
      </figcaption>
    </figure>
  );
}
