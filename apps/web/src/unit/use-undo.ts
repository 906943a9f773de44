import type { UnitResource } from '@zemble/contract';
import { useEffect } from 'react';
import { useOutboxState } from '../api/outbox-context.tsx';
import { useMyName } from '../api/use-session.ts';
import type { Entry } from '../api/act.ts';

/** A step that can be taken back. */
export interface Undoable {
  readonly sequence: number;
  readonly summary: string;
}

/**
 * The newest step that one's own hand can take back, when nothing of this unit is on its way to the server; where people have names,
 * another's is taken back only from the log, where it is chosen.
 */
export function useUndoable(unit: UnitResource): Undoable | null {
  const { pending } = useOutboxState();
  const me = useMyName();
  const entry = unit.log.find((e) => e.undoable && !e.undone && (me === null || e.by === me));
  const isOnItsWay = pending.some(({ unitId }) => unitId === unit.id);
  return !isOnItsWay && entry ? { sequence: entry.sequence, summary: entry.summary } : null;
}

/** Kinds of fields in which text is typed; a switcher and a tick box are none. */
const TEXT_TYPES = new Set(['text', 'search', 'url', 'tel', 'email', 'password', 'number', 'date', 'time']);
const isTextField = (target: EventTarget | null): target is HTMLInputElement | HTMLTextAreaElement =>
  target instanceof HTMLTextAreaElement ||
  (target instanceof HTMLInputElement && TEXT_TYPES.has(target.type));

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
export function useUndoKey(unit: UnitResource, change: (change: Entry) => void): void {
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
      const isEditing = isTextField(target) && (target.value !== '' || edited.has(target));
      if (isEditing) return;
      event.preventDefault();
      change({ type: 'undo', sequence });
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [sequence, change]);
}
