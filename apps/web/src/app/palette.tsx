import { LAYERS } from '@halfsplit/contract';
import { AutoComplete, Modal, type RefSelectProps } from 'antd';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { fileUrl } from '../api/client.ts';
import { useUnits } from '../api/use-unit.ts';
import { useLayer } from '../unit/layer.tsx';
import { useMode } from '../ui/mode.tsx';
import { onPaletteOpen } from './palette-state.ts';
import { RAIL } from '../unit/stages.ts';
import { useSelection } from '../unit/selection.tsx';
import { useUnitContext } from '../unit/unit-context.tsx';

interface Command {
  readonly value: string;
  readonly run: () => void;
}

/** One field that reaches everything: stages, parts, layers, units. Ctrl K opens it; Alt 1 to 4 go to the stages. */
export function Palette() {
  const [isOpen, setIsOpen] = useState(false);
  const [text, setText] = useState('');
  const field = useRef<RefSelectProps>(null);
  const commands = useCommands();
  const navigate = useNavigate();
  const { unit } = useUnitContext();
  useEffect(() => onPaletteOpen(() => setIsOpen(true)), []);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k') {
        event.preventDefault();
        setIsOpen(true);
      }
      // By the place of the key: with Alt held, many layouts give other signs.
      const digit = /^(?:Digit|Numpad)(\d)$/.exec(event.code)?.[1];
      const stage = event.altKey && digit !== undefined ? RAIL[Number(digit) - 1] : undefined;
      if (stage) {
        event.preventDefault();
        void navigate(`/units/${unit.id}/${stage.stage}`);
      }
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [navigate, unit.id]);
  const close = () => {
    setIsOpen(false);
    setText('');
  };
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  const options = commands.filter((c) => words.every((w) => c.value.toLowerCase().includes(w))).slice(0, 12);
  return (
    <Modal
      open={isOpen}
      onCancel={close}
      footer={null}
      title="Go to anything"
      closable={false}
      afterOpenChange={(open) => open && field.current?.focus()}
      destroyOnHidden
    >
      <AutoComplete
        ref={field}
        open
        autoFocus
        style={{ width: '100%', marginBottom: 320 }}
        value={text}
        onChange={setText}
        onSelect={(value: string) => {
          commands.find((c) => c.value === value)?.run();
          close();
        }}
        options={options.map(({ value }) => ({ value }))}
        placeholder="A part, a stage, a layer, another unit"
        listHeight={300}
        defaultActiveFirstOption
        aria-label="Go to anything"
      />
    </Modal>
  );
}

function useCommands(): readonly Command[] {
  const navigate = useNavigate();
  const { unit } = useUnitContext();
  const { selectRef } = useSelection();
  const { setLayer } = useLayer();
  const { toggle } = useMode();
  const { units } = useUnits();
  return useMemo(() => {
    const stages = RAIL.map(({ stage, word }): Command => ({
      value: `Stage: ${word}`,
      run: () => void navigate(`/units/${unit.id}/${stage}`),
    }));
    const layers = LAYERS.map((l): Command => ({ value: `Show layer: ${l}`, run: () => setLayer(l) }));
    const parts = unit.parts.map(({ part }): Command => ({
      value: `Part: ${part.ref} (${part.kind})`,
      run: () => selectRef(part.ref),
    }));
    const others = (units ?? [])
      .filter((u) => u.id !== unit.id)
      .map((u): Command => ({
        value: `Unit: ${u.name} #${u.number}`,
        run: () => void navigate(`/units/${u.id}/${u.stage === 'log' ? 'log' : 'trace'}`),
      }));
    return [
      ...stages,
      ...layers,
      { value: 'Bench: all units', run: () => void navigate('/') },
      { value: 'Export this unit as a file', run: () => location.assign(fileUrl(unit.id)) },
      { value: 'Dim or light the page', run: toggle },
      ...parts,
      ...others,
    ];
  }, [navigate, unit, selectRef, setLayer, toggle, units]);
}
