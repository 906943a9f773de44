import { BrowserRouter, Navigate, Route, Routes } from 'react-router';
import { SWRConfig } from 'swr';
import { OutboxProvider } from '../api/outbox-context.tsx';
import { BenchPage } from '../features/bench/index.ts';
import { FindStage } from '../features/find/index.ts';
import { IntakeStage } from '../features/intake/index.ts';
import { LogStage } from '../features/log/index.ts';
import { MeasureStage } from '../features/measure/index.ts';
import { ReworkStage } from '../features/rework/index.ts';
import { TraceStage } from '../features/trace/index.ts';
import { ConflictDialog } from './conflict-dialog.tsx';
import { ErrorBoundary } from './error-boundary.tsx';
import { LayerProvider } from './layer.tsx';
import { ModeProvider } from './mode.tsx';
import { UnitPage } from './unit-page.tsx';

export function Root() {
  return (
    <ModeProvider>
      <ErrorBoundary>
        <SWRConfig value={{ revalidateOnFocus: true, errorRetryInterval: 2000 }}>
          <OutboxProvider>
            <LayerProvider>
              <BrowserRouter>
                <ConflictDialog />
                <Routes>
                  <Route path="/" element={<BenchPage />} />
                  <Route path="/units/:unitId" element={<UnitPage />}>
                    <Route index element={<Navigate to="trace" replace />} />
                    <Route path="trace" element={<TraceStage />} />
                    <Route path="intake" element={<IntakeStage />} />
                    <Route path="find" element={<FindStage />} />
                    <Route path="measure" element={<MeasureStage />} />
                    <Route path="rework" element={<ReworkStage />} />
                    <Route path="log" element={<LogStage />} />
                  </Route>
                  <Route path="*" element={<Navigate to="/" replace />} />
                </Routes>
              </BrowserRouter>
            </LayerProvider>
          </OutboxProvider>
        </SWRConfig>
      </ErrorBoundary>
    </ModeProvider>
  );
}
