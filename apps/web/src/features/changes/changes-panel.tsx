import { memo } from 'react';
import { ChangeEntry } from './change-entry.tsx';
import { ChangeList } from './change-list.tsx';
import { SetsBar } from './sets-bar.tsx';

/** What is to be done to the circuit, what was done, and the alternatives: typed in one field, ticked one by one. */
export const ChangesPanel = memo(function ChangesPanel() {
  return (
    <section className="zb-block" aria-label="Changes">
      <ChangeEntry />
      <SetsBar />
      <ChangeList />
    </section>
  );
});
