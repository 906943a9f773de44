import { LAYERS } from '@zemble/contract';
import { Input, Modal, type InputRef } from 'antd';
import { useEffect, useMemo, useRef, useState, type KeyboardEvent as ReactKeyboardEvent } from 'react';
import { useNavigate } from 'react-router';
import { fileUrl } from '../api/client.ts';
import { useUnits } from '../api/use-units.ts';
import { useLayer } from '../unit/layer.tsx';
import { GLOSSARY } from '../features/help/index.ts';
import { openHelp } from '../ui/help-state.ts';
import { useMode } from '../ui/mode.tsx';
import { WORKSHOP_PAGES } from '../ui/workshop-top.tsx';
import { onPaletteOpen } from './palette-state.ts';
import { RAIL } from '../unit/stages.ts';
import { useSelection } from '../unit/selection.tsx';
import { useUnitContext } from '../unit/unit-context.tsx';
import styles from './frame.module.css';

/** Commands shown at once. */
const MOST_SHOWN = 12;
const LIST_ID = 'palette-list';

interface Command {
  readonly value: string;
  readonly run: () => void;
}

/** In a unit: its stages, parts and layers too. Alt 1 to 7 go to the stages, Alt E to what can be done at what is chosen. */
export function UnitPalette() {
  const { unit } = useUnitContext();
  const navigate = useNavigate();
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.altKey && event.code === 'KeyE') {
        event.preventDefault();
        void navigate(`/units/${unit.id}/rework`, { state: { line: '' } });
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
  return (
    <Palette
      own={useUnitCommands()}
      unitId={unit.id}
      placeholder="A part, a stage, a layer, another unit, a word"
    />
  );
}

interface PaletteProps {
  /** Before those that there are everywhere. */
  readonly own?: readonly Command[];
  /** The unit that is open; it is not gone to. */
  readonly unitId?: string;
  readonly placeholder?: string;
}

const NONE: readonly Command[] = [];

/** One field that reaches everything, on every screen: pages, units, help and the trade's words. Ctrl K opens it. */
export function Palette({ own = NONE, unitId, placeholder = 'A page, a unit, a word' }: PaletteProps) {
  const [isOpen, setIsOpen] = useState(false);
  const [text, setText] = useState('');
  const [chosen, setChosen] = useState(0);
  const field = useRef<InputRef>(null);
  const everywhere = useCommands(text, unitId);
  const commands = useMemo(() => [...own, ...everywhere], [own, everywhere]);
  useEffect(() => onPaletteOpen(() => setIsOpen(true)), []);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k') {
        event.preventDefault();
        setIsOpen(true);
      }
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
  const close = () => {
    setIsOpen(false);
    setText('');
    setChosen(0);
  };
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  const found = commands
    .filter((c) => words.every((w) => c.value.toLowerCase().includes(w)))
    .slice(0, MOST_SHOWN);
  const run = (command: Command | undefined) => {
    if (!command) return;
    close();
    command.run();
  };
  const onKey = (event: ReactKeyboardEvent) => {
    const step = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (step !== undefined && found.length > 0) {
      event.preventDefault();
      setChosen((at) => (at + step + found.length) % found.length);
    } else if (event.key === 'Enter') {
      event.preventDefault();
      run(found[chosen]);
    }
  };
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
      <Input
        ref={field}
        autoFocus
        value={text}
        onChange={(event) => {
          setText(event.target.value);
          setChosen(0);
        }}
        onKeyDown={onKey}
        placeholder={placeholder}
        role="combobox"
        aria-label="Go to anything"
        aria-expanded
        aria-controls={LIST_ID}
        aria-activedescendant={found[chosen] ? `${LIST_ID}-${chosen}` : undefined}
      />
      <ul className={styles.commands} id={LIST_ID} role="listbox" aria-label="Where to">
        {found.map((command, i) => (
          <li
            key={command.value}
            id={`${LIST_ID}-${i}`}
            role="option"
            aria-selected={i === chosen}
            onPointerEnter={() => setChosen(i)}
            onClick={() => run(command)}
          >
            {command.value}
          </li>
        ))}
        {found.length === 0 && <li className="zb-dim">Nothing is called so here.</li>}
      </ul>
    </Modal>
  );
}

/** How many other units are offered. */
const MOST_UNITS = 20;

/** What there is on every screen. */
function useCommands(text: string, unitId: string | undefined): readonly Command[] {
  const navigate = useNavigate();
  const { toggle } = useMode();
  const { units } = useUnits({ find: text.replace(/^\s*unit:?\s*/i, '').trim(), limit: MOST_UNITS });
  return useMemo(() => {
    const pages = WORKSHOP_PAGES.map(({ path, word }): Command => ({
      value: `Go to the ${word.toLowerCase()}`,
      run: () => void navigate(path),
    }));
    const others = (units ?? [])
      .filter((u) => u.id !== unitId)
      .map((u): Command => ({
        value: `Unit: ${u.name} #${u.number}`,
        run: () => void navigate(`/units/${u.id}/${u.stage === 'log' ? 'log' : 'trace'}`),
      }));
    const words = Object.keys(GLOSSARY).map((word): Command => ({
      value: `What is: ${word}`,
      run: () => openHelp(word),
    }));
    return [
      ...pages,
      { value: 'Help: this screen, its keys and words', run: () => openHelp() },
      { value: 'Dim or light the page', run: toggle },
      ...others,
      ...words,
    ];
  }, [navigate, unitId, toggle, units]);
}

/** What there is in a unit beside. */
function useUnitCommands(): readonly Command[] {
  const navigate = useNavigate();
  const { unit } = useUnitContext();
  const { selectRef, selectNet } = useSelection();
  const { setLayer } = useLayer();
  return useMemo(() => {
    const stages = RAIL.map(({ stage, word }): Command => ({
      value: `Stage: ${word}`,
      run: () => void navigate(`/units/${unit.id}/${stage}`),
    }));
    const layers = LAYERS.map((l): Command => ({ value: `Show layer: ${l}`, run: () => setLayer(l) }));
    const parts = unit.parts.map(({ part }): Command => ({
      value: `Part: ${part.ref} (${part.kind})`,
      run: () => {
        selectNet(null);
        selectRef(part.ref);
      },
    }));
    const nets = [...new Set(unit.parts.flatMap(({ part }) => Object.values(part.pins)))].sort();
    const netCommands = nets.map((net): Command => ({
      value: `Net: ${net}`,
      run: () => {
        selectRef(null);
        selectNet(net);
      },
    }));
    return [
      ...stages,
      ...layers,
      {
        value: 'Change what is chosen',
        run: () => void navigate(`/units/${unit.id}/rework`, { state: { line: '' } }),
      },
      { value: 'Export this unit as a file', run: () => location.assign(fileUrl(unit.id)) },
      ...parts,
      ...netCommands,
    ];
  }, [navigate, unit, selectRef, selectNet, setLayer]);
}
