import type { UnitDocument } from '@zemble/core';
import { useMemo } from 'react';

/** What of a document is computed with: the same object while notes, evidence, path and the like change beside it. */
export function useComputed({ circuit, readouts, settings }: UnitDocument): UnitDocument {
  return useMemo(
    () => ({ unit: {}, circuit, readouts, ...(settings ? { settings } : {}) }),
    [circuit, readouts, settings],
  );
}
