import { readoutDefinitionOf } from '@zemble/contract';
import type { Readout } from '@zemble/core';

/** Whether a readout takes runs in time, so that it follows the quick ones. */
export const isSlow = (readout: Readout): boolean => readoutDefinitionOf(readout.kind).isSlow === true;
