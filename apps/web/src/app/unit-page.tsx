import type { UnitResource } from '@zemble/contract';
import {
  assumptionsOf,
  changeWarnings,
  checkCircuit,
  checkReadouts,
  transferEnds,
  type Problem,
  type Readout,
} from '@zemble/core';
import { Button, Spin } from 'antd';
import { memo, Suspense, useEffect, useMemo, useRef, useState } from 'react';
import { Link, Outlet, useLocation, useParams } from 'react-router';
import { useChange } from '../api/outbox-context.tsx';
import { useLive } from '../api/use-live.ts';
import { useUnit } from '../api/use-unit.ts';
import { useDocument } from '../unit/use-document.ts';
import { useAnalysis } from '../compute/use-analysis.ts';
import { useComputed } from '../compute/use-computed.ts';
import { ReadoutsDock } from '../features/readouts/index.ts';
import { AreaBoundary } from '../ui/area-boundary.tsx';
import { LaterUnit } from '../unit/later-unit.tsx';
import { UnitPalette } from './palette.tsx';
import { Rail } from './rail.tsx';
import { TopBar } from './top-bar.tsx';
import { AnalysedContext, LatestAnalysisContext, type Analysed } from '../unit/analysed.tsx';
import { useLayer } from '../unit/layer.tsx';
import { SelectionProvider } from '../unit/selection.tsx';
import { AS_DRAWN, NO_TRIAL, TrialContext, triedDocument, type Trial } from '../unit/trial.tsx';
import { UnitContext, type UnitContextValue } from '../unit/unit-context.tsx';
import { useStage } from '../unit/use-stage.ts';
import { useUndoKey } from '../unit/use-undo.ts';
import styles from './frame.module.css';

export function UnitPage() {
  const { unitId = '' } = useParams();
  const { unit, error } = useUnit(unitId);
  if (error && !unit) {
    return (
      <main className="zb-empty">
        <h1>This unit cannot be shown</h1>
        <p>{error.message}</p>
        <Link to="/">
          <Button type="primary">Back to the bench</Button>
        </Link>
      </main>
    );
  }
  if (!unit) {
    return (
      <main className="zb-empty">
        <Spin />
        <p>Fetching the unit</p>
      </main>
    );
  }
  return <LoadedUnit key={unit.id} unit={unit} />;
}

const LaterTopBar = memo(TopBar);
const LaterRail = memo(Rail);
const LaterDock = memo(ReadoutsDock);
const LaterPalette = memo(UnitPalette);

function LoadedUnit({ unit: stored }: { unit: UnitResource }) {
  const change = useChange(stored.id);
  const { unit, document: saved, unread } = useDocument(stored);
  const [trial, setTrial] = useState(NO_TRIAL);
  const [readoutId, setReadoutId] = useState<string | null>(null);
  const [controls, setControls] = useState(AS_DRAWN);
  const tried = useMemo(() => triedDocument(saved, trial, controls), [saved, trial, controls]);
  const response = useMemo(() => responseNets(saved.readouts, readoutId), [saved.readouts, readoutId]);
  const { analysis, why } = useAnalysis(useComputed(tried), response);
  const latestAnalysis = useRef(analysis);
  useEffect(() => {
    latestAnalysis.current = tried === saved ? analysis : null;
  }, [analysis, tried, saved]);
  const written = useMemo(
    () => [
      ...checkCircuit(saved.circuit),
      ...assumptionsOf(saved),
      ...checkReadouts(saved.circuit, saved.readouts, saved.settings),
    ],
    [saved],
  );
  const { layer } = useLayer();
  const overRated = useSame(analysis?.layers[layer].overRated ?? NO_PROBLEMS);
  const halfDone = useMemo(() => changeWarnings(saved.circuit, layer), [saved.circuit, layer]);
  const warnings = useMemo(() => [...overRated, ...halfDone], [overRated, halfDone]);
  const problems = useMemo(() => [...unread, ...written, ...warnings], [unread, written, warnings]);
  useLive(unit);
  const { pathname } = useLocation();
  useStage(unit, pathname, change);
  useUndoKey(unit, change);
  const value = useMemo(
    (): UnitContextValue => ({ unit, document: saved, problems, warnings, change }),
    [unit, saved, problems, warnings, change],
  );
  const analysed = useMemo(
    (): Analysed => ({ analysis, why, readoutId, setReadoutId }),
    [analysis, why, readoutId],
  );
  const trying = useMemo(
    (): Trial => ({ trial, setTrial, controls, setControls, tried }),
    [trial, controls, tried],
  );
  return (
    <UnitContext value={value}>
      <LatestAnalysisContext value={latestAnalysis}>
        <AnalysedContext value={analysed}>
          <TrialContext value={trying}>
            <SelectionProvider
              testPoints={saved.path?.testPoints}
              isMeasuring={pathname.endsWith('/measure')}
            >
              <div className={styles.unit}>
                <LaterUnit>
                  <LaterTopBar />
                  <LaterRail />
                </LaterUnit>
                <main className={styles.page}>
                  <AreaBoundary name="This stage" resetKey={pathname}>
                    <Suspense fallback={null}>
                      <Outlet />
                    </Suspense>
                  </AreaBoundary>
                </main>
                <LaterUnit>
                  <AreaBoundary name="The dock">
                    <LaterDock />
                  </AreaBoundary>
                  <LaterPalette />
                </LaterUnit>
              </div>
            </SelectionProvider>
          </TrialContext>
        </AnalysedContext>
      </LatestAnalysisContext>
    </UnitContext>
  );
}

const NO_PROBLEMS: readonly Problem[] = [];

/** A list as it was before where it is equal to it: every answer of a worker is a new one. */
function useSame<T>(list: readonly T[]): readonly T[] {
  const [kept, setKept] = useState(list);
  const isSame = kept === list || JSON.stringify(kept) === JSON.stringify(list);
  if (!isSame) setKept(list);
  return isSame ? kept : list;
}

/** The nets of the chosen readout, or of the first one that has an input and an output. */
function responseNets(
  readouts: readonly Readout[],
  chosen: string | null,
): { from: string; to: string } | null {
  const chosenEnds = readouts.filter((r) => r.id === chosen).map(transferEnds)[0];
  return chosenEnds ?? readouts.map(transferEnds).find((ends) => ends !== null) ?? null;
}
