import type { Step } from '@zemble/contract';
import { changeWords, plannedForChange, twinSteps, type Circuit } from '@zemble/core';
import { Checkbox } from 'antd';
import { useMemo, useSyncExternalStore } from 'react';

const KEY = 'zemble.both-channels';
const listeners = new Set<() => void>();
const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};
const isWanted = () => localStorage.getItem(KEY) === 'yes';
function want(isOn: boolean): void {
  localStorage.setItem(KEY, isOn ? 'yes' : 'no');
  for (const listener of listeners) listener();
}

export interface BothChannels {
  /** What is done at the twin, where the steps are of one channel of two. */
  readonly twin: readonly Step[] | null;
  readonly twinWords: string;
  /** The steps that are planned: with those at the twin where that was asked for. */
  readonly steps: readonly Step[];
}

/** Steps of one channel with what they are in the other; asked for once, it stays so. */
export function useBothChannels(circuit: Circuit, steps: readonly Step[]): BothChannels {
  const isOn = useSyncExternalStore(subscribe, isWanted);
  const twin = useMemo(() => (steps.length === 0 ? null : twinSteps(circuit, steps)), [circuit, steps]);
  const twinWords = useMemo(
    () => (twin ? changeWords({ steps: twin }, plannedForChange(circuit)) : ''),
    [circuit, twin],
  );
  return useMemo(
    () => ({ twin, twinWords, steps: isOn && twin ? [...steps, ...twin] : steps }),
    [isOn, twin, twinWords, steps],
  );
}

/** Asks whether the other channel gets the same; nothing where there is none. */
export function BothChannelsBox({ twin, twinWords }: BothChannels) {
  const isOn = useSyncExternalStore(subscribe, isWanted);
  if (!twin) return null;
  return (
    <Checkbox checked={isOn} onChange={(event) => want(event.target.checked)}>
      the other channel too: <span className="zb-mono">{twinWords}</span>
    </Checkbox>
  );
}
