import type { StreamEvent, UnitResource } from '@zemble/contract';
import { applyEdits } from '@zemble/core';
import { unstable_serialize, type useSWRConfig } from 'swr';

export const unitKey = (id: string): readonly [string, string] => ['unit', id];

type Known = Pick<ReturnType<typeof useSWRConfig>, 'mutate' | 'cache'>;

/** Brings what is known of a unit on by edits; it is fetched anew where it is not known, or some of them are missing. */
export async function applyNews({ mutate, cache }: Known, news: StreamEvent): Promise<void> {
  const { unitId } = news;
  const key = unitKey(unitId);
  // An update of nothing would have a fetch that is on its way thrown away.
  let isBehind = 'reload' in news || cache.get(unstable_serialize(key))?.data === undefined;
  if ('edits' in news && !isBehind)
    await mutate<UnitResource>(
      key,
      (known) => {
        const next = known && applyEdits(known, news.edits);
        isBehind = next === null;
        return next ?? known;
      },
      { revalidate: false },
    );
  if (isBehind) await mutate(key);
}
