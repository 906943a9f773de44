import { lazy, Suspense } from 'react';
import { BrowserRouter, Navigate, Outlet, Route, Routes } from 'react-router';
import { SWRConfig } from 'swr';
import { ProblemError } from '../api/client.ts';
import { OutboxProvider } from '../api/outbox-context.tsx';
import { SessionGate } from '../people/session-gate.tsx';
import { Conflicts } from '../saving/conflicts.tsx';
import { ErrorBoundary } from './error-boundary.tsx';
import { NewVersion } from './new-version.tsx';
import { LayerProvider } from '../unit/layer.tsx';
import { ModeProvider } from '../ui/mode.tsx';

/** Each screen comes with its own code when it is opened; the service worker has all of it for when the server is away. */
const BenchPage = lazy(() => import('../features/bench/index.ts').then((m) => ({ default: m.BenchPage })));
const DrawerPage = lazy(() => import('../features/drawer/index.ts').then((m) => ({ default: m.DrawerPage })));
const DeskPage = lazy(() => import('../features/desk/index.ts').then((m) => ({ default: m.DeskPage })));
const PairPage = lazy(() => import('../people/pair-page.tsx').then((m) => ({ default: m.PairPage })));
const UnitPage = lazy(() => import('./unit-page.tsx').then((m) => ({ default: m.UnitPage })));
const IntakeStage = lazy(() =>
  import('../features/intake/index.ts').then((m) => ({ default: m.IntakeStage })),
);
const TraceStage = lazy(() => import('../features/trace/index.ts').then((m) => ({ default: m.TraceStage })));
const FindStage = lazy(() => import('../features/find/index.ts').then((m) => ({ default: m.FindStage })));
const MeasureStage = lazy(() =>
  import('../features/measure/index.ts').then((m) => ({ default: m.MeasureStage })),
);
const ReworkStage = lazy(() =>
  import('../features/rework/index.ts').then((m) => ({ default: m.ReworkStage })),
);
const BuildStage = lazy(() => import('../features/build/index.ts').then((m) => ({ default: m.BuildStage })));
const BoardPrint = lazy(() => import('../features/build/index.ts').then((m) => ({ default: m.BoardPrint })));
const PanelPrint = lazy(() => import('../features/build/index.ts').then((m) => ({ default: m.PanelPrint })));
const LogStage = lazy(() => import('../features/log/index.ts').then((m) => ({ default: m.LogStage })));

/** What is asked for by a key comes after the screen. */
const Help = lazy(() => import('../features/help/index.ts').then((m) => ({ default: m.Help })));
const Palette = lazy(() => import('./palette.tsx').then((m) => ({ default: m.Palette })));

/** What is not there is not there a moment later: it is asked for again when somebody looks. */
const mayPass = (error: unknown): boolean =>
  !(error instanceof ProblemError && error.problem.code === 'not-found');

/** The frame and one screen in it. */
export function Root() {
  return (
    <ModeProvider>
      <ErrorBoundary>
        <SWRConfig value={{ revalidateOnFocus: true, errorRetryInterval: 2000, shouldRetryOnError: mayPass }}>
          <OutboxProvider>
            <LayerProvider>
              <BrowserRouter>
                <Conflicts />
                <NewVersion />
                <Suspense fallback={null}>
                  <Help />
                </Suspense>
                <Suspense
                  fallback={
                    <p className="zb-opening" role="status">
                      Opening…
                    </p>
                  }
                >
                  <Routes>
                    <Route path="/pair" element={<PairPage />} />
                    <Route
                      element={
                        <SessionGate>
                          <Outlet />
                        </SessionGate>
                      }
                    >
                      <Route
                        element={
                          <>
                            <Suspense fallback={null}>
                              <Palette />
                            </Suspense>
                            <Outlet />
                          </>
                        }
                      >
                        <Route path="/" element={<BenchPage />} />
                        <Route path="/drawer" element={<DrawerPage />} />
                        <Route path="/desk" element={<DeskPage />} />
                      </Route>
                      <Route path="/units/:unitId/print/board/:boardId" element={<BoardPrint />} />
                      <Route path="/units/:unitId/print/panel/:panelId" element={<PanelPrint />} />
                      <Route path="/units/:unitId" element={<UnitPage />}>
                        <Route index element={<Navigate to="trace" replace />} />
                        <Route path="trace" element={<TraceStage />} />
                        <Route path="intake" element={<IntakeStage />} />
                        <Route path="find" element={<FindStage />} />
                        <Route path="measure" element={<MeasureStage />} />
                        <Route path="rework" element={<ReworkStage />} />
                        <Route path="build" element={<BuildStage />} />
                        <Route path="log" element={<LogStage />} />
                      </Route>
                      <Route path="*" element={<Navigate to="/" replace />} />
                    </Route>
                  </Routes>
                </Suspense>
              </BrowserRouter>
            </LayerProvider>
          </OutboxProvider>
        </SWRConfig>
      </ErrorBoundary>
    </ModeProvider>
  );
}
