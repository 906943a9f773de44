import { useCallback } from 'react';
import { newId } from '../../api/new-id.ts';
import { useUnitContext } from '../../unit/unit-context.tsx';

/** Takes a picture in: kept in this browser at once, and sent as everything else that is entered. */
export function useUpload(): (file: File) => void {
  const { change } = useUnitContext();
  return useCallback(
    (file: File) => change({ type: 'add-photo', id: newId(), name: file.name, file }),
    [change],
  );
}
