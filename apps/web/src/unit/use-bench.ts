import { circuitAt, type UnitDocument } from '@zemble/core';
import { useMemo } from 'react';

/** The unit as it lies on the bench now: with what is done, and what is temporary. */
export const useBench = (document: UnitDocument): UnitDocument =>
  useMemo(() => ({ ...document, circuit: circuitAt(document.circuit, 'proven') }), [document]);
