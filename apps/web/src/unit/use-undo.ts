import type { UnitResource } from '@zemble/contract';
import { useEffect } from 'react';
import { useOutboxState } from '../api/outbox-context.tsx';
import type { Change } from '../api/change.ts';

/** The newest step that can be taken back, when nothing is on its way to the server. */
export function useUndoable(unit: UnitResource): { sequence: number; summary: string } | null {
  const { pending } = useOutboxState();
  const entry = unit.log.find((e) => e.undoable && !e.undone);
  return pending.length === 0 && entry ? { sequence: entry.sequence, summary: entry.summary } : null;
}

/** Fields whose text was changed since Enter was pressed in them: their Ctrl Z is their own, also when they are empty. */
const edited = new WeakSet<EventTarget>();
addEventListener('input', ({ target }) => target && edited.add(target), true);
addEventListener(
  'keydown',
  ({ key, target }) => {
    if (target && (key === 'Enter' || key === 'Escape')) edited.delete(target);
  },
  true,
);

/** Ctrl Z takes the last step back, unless a field is being edited, where it is the field's own. */
export function useUndoKey(unit: UnitResource, change: (change: Change) => void): void {
  const undoable = useUndoable(unit);
  const sequence = undoable?.sequence;
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (
        !(event.ctrlKey || event.metaKey) ||
        event.key.toLowerCase() !== 'z' ||
        event.shiftKey ||
        sequence === undefined
      )
        return;
      const { target } = event;
      const isEditing =
        (target instanceof HTMLInputElement || target instanceof HTMLTextAreaElement) &&
        (target.value !== '' || edited.has(target));
      if (isEditing) return;
      event.preventDefault();
      change({ type: 'undo', sequence });
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [sequence, change]);
}
