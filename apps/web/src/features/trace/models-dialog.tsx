import { unitAct } from '../../api/unit-act.ts';
import { DeleteOutlined } from '@ant-design/icons';
import type { OwnModel } from '@zemble/contract';
import { modelFromText, MODELS } from '@zemble/core';
import { Button, Input, Modal } from 'antd';
import { useState } from 'react';
import { useUnitContext } from '../../unit/unit-context.tsx';
import styles from './trace.module.css';

/** Opens the models that the unit's parts can be of: the library's, and the unit's own. */
export function ModelsButton() {
  const [isOpen, setIsOpen] = useState(false);
  return (
    <>
      <Button type="text" onClick={() => setIsOpen(true)}>
        Models
      </Button>
      {isOpen && <ModelsDialog onClose={() => setIsOpen(false)} />}
    </>
  );
}

function ModelsDialog({ onClose }: { onClose: () => void }) {
  const { unit, change } = useUnitContext();
  const [line, setLine] = useState('');
  const [wanted, setWanted] = useState('');
  const read = line.trim() === '' ? null : modelFromText(line);
  const keep = (models: OwnModel[]) => change(unitAct(unit, { models }));
  const add = () => {
    if (!read?.ok) return;
    keep([...unit.models.filter((m) => m.name.toLowerCase() !== read.model.name.toLowerCase()), read.model]);
    setLine('');
  };
  const search = wanted.trim().toLowerCase();
  const library = MODELS.filter((m) => search === '' || `${m.name} ${m.kind}`.toLowerCase().includes(search));
  return (
    <Modal open onCancel={onClose} footer={null} title="Models" width={720}>
      <p className="zb-hint">
        A model of your own is its name, its kind and its parameters under their published names. It comes
        before the library’s in this unit, and goes with its file.
      </p>
      <div className={styles.modelEntry}>
        <Input
          value={line}
          onChange={(e) => setLine(e.target.value)}
          onPressEnter={add}
          placeholder="XQ1 bjt BF=420 IS=2e-14 VAF=80"
          aria-label="A model of your own"
          status={read !== null && !read.ok ? 'error' : ''}
          autoFocus
        />
        <Button type="primary" onClick={add} disabled={!read?.ok}>
          Keep it
        </Button>
      </div>
      <p className={read !== null && !read.ok ? 'zb-refused' : 'zb-hint'} role="status">
        {read === null
          ? 'Parts use it by its name, as they use a type number.'
          : read.ok
            ? `${read.model.name}, ${read.model.kind}, ${Object.keys(read.model.params).length} parameters`
            : read.problem.message}
      </p>
      <table className="zb-table">
        <tbody>
          {unit.models.map((m) => (
            <tr key={m.name}>
              <td className="zb-ref">{m.name}</td>
              <td className="zb-dim">{m.kind}</td>
              <td className="zb-mono">{parametersOf(m.params)}</td>
              <td className="zb-dim">own</td>
              <td>
                <button
                  className="zb-icon"
                  aria-label={`Remove the model ${m.name}`}
                  onClick={() => keep(unit.models.filter((o) => o !== m))}
                >
                  <DeleteOutlined aria-hidden />
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <Input
        className="zb-spaced"
        value={wanted}
        onChange={(e) => setWanted(e.target.value)}
        placeholder="Find in the library"
        aria-label="Find in the library"
      />
      <div className={styles.modelList} tabIndex={0} role="group" aria-label="Library, scrolls">
        <table className="zb-table">
          <tbody>
            {library.map((m) => (
              <tr key={m.name}>
                <td className="zb-ref">{m.name}</td>
                <td className="zb-dim">{m.kind}</td>
                <td className="zb-mono">{parametersOf(m.params)}</td>
                <td className="zb-dim">{m.origin}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </Modal>
  );
}

const parametersOf = (params: Readonly<Record<string, number | string>>) =>
  Object.entries(params)
    .map(([name, value]) => `${name}=${typeof value === 'number' ? Number(value.toPrecision(4)) : value}`)
    .join(' ');
