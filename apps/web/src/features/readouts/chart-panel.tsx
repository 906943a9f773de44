import type { Layer } from '@zemble/contract';
import { unitOf, type Unit, transferEnds } from '@zemble/core';
import { Button, Progress } from 'antd';
import { lazy, memo, Suspense, useMemo, useState } from 'react';
import { useLayer } from '../../unit/layer.tsx';
import { useAnalysed } from '../../unit/analysed.tsx';
import { useComputed } from '../../compute/use-computed.ts';
import { useTrial } from '../../unit/trial.tsx';
import { useUnitContext } from '../../unit/unit-context.tsx';
import type { DeepAnswer, DeepKind, DeepRequest } from '../../compute/deep.ts';
import { SlopeList } from './slope-list.tsx';
import { OneOf } from '../../ui/one-of.tsx';
import { LayerWord } from '../../ui/marks.tsx';
import { useDeep } from './use-deep.ts';
import styles from './readouts.module.css';

const ResponseChart = lazy(() => import('../../ui/response-chart.tsx'));
const SeriesChart = lazy(() => import('../../ui/series-chart.tsx'));

const CURVE_LAYERS: readonly Layer[] = ['marked', 'found', 'planned'];

type View = 'response' | DeepKind;
const VIEWS: readonly { value: View; label: string }[] = [
  { value: 'response', label: 'Response' },
  { value: 'spread', label: 'Spread' },
  { value: 'parts', label: 'What moves it' },
  { value: 'noise', label: 'Noise' },
  { value: 'switch-on', label: 'Switch-on' },
  { value: 'stability', label: 'Stability' },
];

/** The response of every layer; and for the layer shown its spread, noise, switch-on and stability when asked for. */
export function ChartPanel() {
  const { document } = useUnitContext();
  const { analysis, readoutId } = useAnalysed();
  const { tried: whole } = useTrial();
  // A note, or a change of the path, starts no run anew.
  const tried = useComputed(whole);
  const { layer } = useLayer();
  const [view, setView] = useState<View>('response');
  const chosen = document.readouts.find((r) => r.id === readoutId);
  const named =
    chosen && transferEnds(chosen) ? chosen : document.readouts.find((r) => transferEnds(r) !== null);
  const { from, to } = (named && transferEnds(named)) ?? {};
  const moved = document.readouts.find((r) => r.id === readoutId)?.id ?? named?.id;
  const request = useMemo(
    (): DeepRequest | null =>
      view === 'response' || from === undefined || to === undefined
        ? null
        : { kind: view, document: tried, layer, from, to, readoutId: moved ?? '' },
    [view, tried, layer, from, to, moved],
  );
  const deep = useDeep(request);
  const curves = useMemo(
    () =>
      CURVE_LAYERS.flatMap((l) => {
        const gainDb = analysis?.layers[l].gainDb;
        return gainDb && (view !== 'spread' || l === layer) ? [{ layer: l, gainDb }] : [];
      }),
    [analysis, view, layer],
  );
  const answer = deep.is === 'made' && deep.answer.kind === view ? deep.answer : null;
  const band = useMemo(
    () =>
      answer?.kind === 'spread' && answer.ok
        ? { low: answer.series[0]!.y, high: answer.series[1]!.y }
        : undefined,
    [answer],
  );
  if (!analysis || curves.length === 0 || from === undefined || to === undefined) {
    return (
      <div className={styles.dockChart}>
        <p className="zb-empty-words">A readout with an input and an output draws its response here.</p>
      </div>
    );
  }
  const movedReadout = document.readouts.find((r) => r.id === moved);
  const unitOfMoved = movedReadout ? unitOf(movedReadout, document.readouts) : 'ratio';
  const label = `Gain, ${from} to ${to}`;
  return (
    <div className={`${styles.dockChart} ${styles.chartPanel}`}>
      <div className={styles.chartHead}>
        <ViewChoice view={view} onView={setView} />
      </div>
      {view !== 'response' && (
        <p className={styles.chartNote} role="status">
          <LayerWord layer={layer} />
          {deep.is === 'running' && (
            <>
              <Progress
                percent={Math.round(deep.fraction * 100)}
                size="small"
                showInfo={false}
                style={{ width: 120 }}
                aria-label="Progress"
              />{' '}
              <Button size="small" onClick={deep.cancel}>
                Stop
              </Button>
            </>
          )}
          {deep.is === 'stopped' && 'Stopped. Choose it again to compute it.'}
          {answer && <span className={answer.ok ? undefined : 'zb-out'}>{answer.sentence}</span>}
        </p>
      )}
      {view === 'response' && <p className={styles.chartTitle}>{label}</p>}
      <div className={styles.chartBody}>
        <Suspense fallback={null}>
          {view === 'response' || view === 'spread' ? (
            <ResponseChart
              frequencyHz={analysis.frequencyHz}
              curves={curves}
              label={`${label}, over frequency`}
              {...(band ? { band } : {})}
            />
          ) : (
            answer && <DeepView answer={answer} layer={layer} to={to} unit={unitOfMoved} />
          )}
        </Suspense>
      </div>
    </div>
  );
}

const ViewChoice = memo(function ViewChoice({
  view,
  onView,
}: {
  readonly view: View;
  readonly onView: (view: View) => void;
}) {
  return <OneOf label="What is drawn" options={VIEWS} value={view} onChange={onView} />;
});

interface DeepViewProps {
  readonly answer: DeepAnswer;
  readonly layer: Layer;
  readonly to: string;
  /** Unit of the readout whose parts are listed. */
  readonly unit: Unit;
}

function DeepView({ answer, layer, to, unit }: DeepViewProps) {
  if (answer.slopes) return <SlopeList slopes={answer.slopes} unit={unit} layer={layer} />;
  if (!answer.series[0]) return null;
  const { x, y } = answer.series[0];
  const isNoise = answer.kind === 'noise';
  return (
    <SeriesChart
      x={x}
      y={y}
      xAxis={isNoise ? { unit: 'Hz', isLog: true } : { unit: 's', isLog: false }}
      yAxis={isNoise ? { unit: 'nV/rtHz', isLog: true } : { unit: 'V', isLog: false }}
      colour={`var(--zb-${layer})`}
      label={isNoise ? `Noise at ${to}` : `${to} after switch-on`}
    />
  );
}
