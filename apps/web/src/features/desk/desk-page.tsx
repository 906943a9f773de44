import { CALCULATIONS, type Calculation } from '@zemble/core';
import { Input } from 'antd';
import { useState } from 'react';
import { WorkshopTop } from '../../ui/workshop-top.tsx';
import { useDrawer } from '../drawer/index.ts';
import { CalculationBlock } from './calculation-block.tsx';
import styles from './desk.module.css';

const matches = ({ title, given, following }: Calculation, text: string): boolean => {
  const said = [title, ...given.map((f) => f.label), ...following.map((f) => f.label)]
    .join(' ')
    .toLowerCase();
  return text
    .toLowerCase()
    .split(/\s+/)
    .every((word) => said.includes(word));
};

/** Quick calculations that belong to no unit. */
export function DeskPage() {
  const [text, setText] = useState('');
  const { items } = useDrawer();
  const shown = CALCULATIONS.filter((c) => matches(c, text));
  return (
    <div className={styles.page}>
      <WorkshopTop />
      <main className={styles.main}>
        <div className="zb-panel-head">
          <h1>Desk</h1>
          <Input
            autoFocus
            className={styles.search}
            value={text}
            onChange={(event) => setText(event.target.value)}
            placeholder="Find divider, dBu, 555, LED"
            aria-label="Find a calculation"
            allowClear
          />
          <span className="zb-dim">
            Type any field in any notation; the others follow. What a field moves is said beside it.
          </span>
        </div>
        <div className={styles.blocks}>
          {shown.map((calculation) => (
            <CalculationBlock key={calculation.id} calculation={calculation} drawer={items} />
          ))}
        </div>
        {shown.length === 0 && <p className="zb-empty-words">Nothing here is called so.</p>}
      </main>
    </div>
  );
}
