import { useState } from 'react';
import { useSWRConfig } from 'swr';
import { sendPhoto } from '../../api/client.ts';
import { newId } from '../../api/outbox-store.ts';
import { applyNews } from '../../api/use-unit.ts';

/** Sends a picture; while it is on its way, and when it fails, the page says so. */
export function useUpload(unitId: string) {
  const { mutate, cache } = useSWRConfig();
  const [failure, setFailure] = useState<string | null>(null);
  const [isBusy, setIsBusy] = useState(false);
  const upload = async (file: File) => {
    setIsBusy(true);
    setFailure(null);
    try {
      const { edits } = await sendPhoto(unitId, file, newId());
      if (edits.length > 0) await applyNews({ mutate, cache }, { unitId, edits });
    } catch (error) {
      setFailure(`${(error as Error).message} The photo was not added; choose it again.`);
    } finally {
      setIsBusy(false);
    }
  };
  return { upload, failure, isBusy };
}
