import type { UnitResource } from '@zemble/contract';
import { isTemporary } from '@zemble/contract';
import type { WorkWish } from '@zemble/core';

/** A piece of work that can be chosen. */
export interface WorkChoice {
  readonly key: string;
  readonly words: string;
  readonly wish: WorkWish;
}

/** What is done is still to be checked and powered for this long, ms. */
const FRESH_MS = 7 * 24 * 3_600_000;
/** The last step of every work. */
const LAST_STEP = 'power:signal';

/**
 * The work that a unit offers: all that is planned, one change of it, the way back of what is done, or all of it from
 * nothing. Work that is finished while somebody looks at it stays until they come again.
 * @param openedAtMs when the work was opened, ms since 1970
 */
export function workChoices(unit: UnitResource, openedAtMs: number): readonly WorkChoice[] {
  const lastAt = Date.parse(unit.ticks[LAST_STEP]?.at ?? '') || 0;
  const proven = lastAt < openedAtMs ? lastAt : 0;
  const changes = unit.changes.map((c) => c.change);
  const fresh = changes.filter((c) => {
    const since = Date.parse(c.since ?? '') || 0;
    return c.state === 'done' && !isTemporary(c) && since > proven && openedAtMs - since < FRESH_MS;
  });
  const planned = changes.filter((c) => c.state === 'planned');
  const alsoDone = fresh.map((c) => c.id);
  const all: WorkChoice = { key: 'all', words: 'All that is planned', wish: { alsoDone } };
  const each = planned.length > 1 ? planned : [];
  return [
    all,
    ...each.map(({ id, name }): WorkChoice => ({ key: `do:${id}`, words: name, wish: { change: id } })),
    ...changes
      .filter((c) => c.state === 'done' || c.state === 'undone')
      .map(({ id, name }): WorkChoice => ({
        key: `back:${id}`,
        words: `Take back: ${name}`,
        wish: { change: id, isBack: true },
      })),
    { key: 'whole', words: 'The whole unit from nothing', wish: { isWhole: true } },
  ];
}
