import { lazy, Suspense } from 'react';
import { useOutboxState } from '../api/outbox-context.tsx';

const ConflictDialog = lazy(() =>
  import('./conflict-dialog.tsx').then((m) => ({ default: m.ConflictDialog })),
);

/** Asks where something was changed elsewhere meanwhile; nothing otherwise. */
export function Conflicts() {
  const { conflict } = useOutboxState();
  return (
    conflict && (
      <Suspense fallback={null}>
        <ConflictDialog conflict={conflict} />
      </Suspense>
    )
  );
}
