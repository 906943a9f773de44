import type { UnitResource } from '@zemble/contract';
import { DocumentMaker, withNetsOfNow, type Problem, type UnitDocument } from '@zemble/core';
import { useMemo, useState } from 'react';

/**
 * The unit as the document that core computes with; what an edit does not touch stays the same object. Both name nets as they are
 * called now.
 */
export function useDocument(stored: UnitResource): {
  readonly unit: UnitResource;
  readonly document: UnitDocument;
  /** What of the record cannot be read, and is left out of the document. */
  readonly unread: readonly Problem[];
} {
  const [maker] = useState(() => new DocumentMaker());
  const { made, unread } = useMemo(() => {
    const problems: Problem[] = [];
    return { made: maker.make(stored, problems), unread: problems };
  }, [maker, stored]);
  const unit = useMemo(() => withNetsOfNow(made.circuit, stored), [made.circuit, stored]);
  const document = useMemo(() => withNetsOfNow(made.circuit, made), [made]);
  return { unit, document, unread };
}
