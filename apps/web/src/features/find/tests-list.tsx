import { SCHOOLS, type ForbiddenTest, type ProposedTest, type School, type Test } from '@zemble/core';
import { Select } from 'antd';
import { useState } from 'react';
import { OneOf } from '../../ui/one-of.tsx';
import { Keys } from '../../ui/keys.tsx';
import styles from './find.module.css';

const SCHOOL_WORDS: Readonly<Record<School, string>> = {
  value: 'by value',
  inject: 'inject backwards',
  trace: 'trace forwards',
  halve: 'halve',
};
const SHOWN = 5;

interface Props {
  readonly next: readonly ProposedTest[];
  readonly all: readonly Test[];
  readonly forbidden: readonly ForbiddenTest[];
  readonly currentId: string | null;
  readonly onChoose: (id: string) => void;
  readonly school: School;
  readonly onSchool: (school: School) => void;
}

/** The best five tests with what they tell; any other point may be chosen, and one that is forbidden says why. */
export function TestsList({ next, all, forbidden, currentId, onChoose, school, onSchool }: Props) {
  const [refused, setRefused] = useState<string | null>(null);
  const choose = (id: string) => {
    const reason = forbidden.find((f) => f.test.id === id)?.reason;
    setRefused(reason ?? null);
    if (reason === undefined) onChoose(id);
  };
  const options = [
    ...all.map((t) => ({ value: t.id, label: t.question })),
    ...forbidden.map(({ test }) => ({ value: test.id, label: `${test.question} (not offered)` })),
  ];
  return (
    <div className={styles.tests}>
      <div className="zb-tests-head">
        <OneOf
          label="School of searching"
          options={SCHOOLS.map((value) => ({ value, label: SCHOOL_WORDS[value] }))}
          value={school}
          onChange={onSchool}
        />
        <Select
          size="small"
          showSearch={{ optionFilterProp: 'label' }}
          value={null}
          placeholder="another test"
          aria-label="Choose another test"
          options={options}
          onChange={choose}
          popupMatchSelectWidth={false}
        />
      </div>
      {refused && (
        <p className="zb-caution" role="alert">
          {refused}
        </p>
      )}
      <table className="zb-table">
        <thead>
          <tr>
            <th>
              Next best tests <Keys keys="↑ ↓" />
            </th>
            <th className="zb-right">bit</th>
            <th className="zb-right">min</th>
          </tr>
        </thead>
        <tbody>
          {next.slice(0, SHOWN).map(({ test, bits, why }) => (
            <tr
              key={test.id}
              className={test.id === currentId ? 'zb-row-selected' : undefined}
              onClick={() => choose(test.id)}
              title={why}
            >
              <td>
                <button className="zb-link" onClick={() => choose(test.id)}>
                  {test.question}
                </button>
              </td>
              <td className="zb-number">{bits.toFixed(2)}</td>
              <td className="zb-number">{Number(test.minutes.toPrecision(2))}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
