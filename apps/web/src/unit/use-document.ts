import type { UnitResource } from '@halfsplit/contract';
import { DocumentMaker, type UnitDocument } from '@halfsplit/core';
import { useMemo, useState } from 'react';

/** The unit as the document that core computes with; what an edit does not touch stays the same object. */
export function useDocument(unit: UnitResource): UnitDocument {
  const [maker] = useState(() => new DocumentMaker());
  return useMemo(() => maker.make(unit), [maker, unit]);
}
