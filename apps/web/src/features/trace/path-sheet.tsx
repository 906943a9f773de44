import { DeleteOutlined } from '@ant-design/icons';
import type { BlockData, PathData } from '@zemble/contract';
import { addPathLine, BLOCK_KINDS, checkPath, proposePath, templatesFor, withoutBlock } from '@zemble/core';
import { AutoComplete, Button, Select } from 'antd';
import { useMemo, useRef, useState, type ReactNode } from 'react';
import { useSelection } from '../../unit/selection.tsx';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { Keys } from '../../ui/keys.tsx';
import { TypedLine } from '../../ui/typed-line.tsx';
import { useTypedLine } from '../../ui/use-typed-line.ts';
import { NumberField } from '../../ui/number-field.tsx';
import { usePath } from '../path/index.ts';
import styles from './trace.module.css';

const KIND_OPTIONS = BLOCK_KINDS.map((k) => ({ value: k.name }));

/** Typing the path: chains of blocks, what they carry, and how hard each is to reach. */
export function PathSheet({ tabs }: { tabs: ReactNode }) {
  const { document } = useUnitContext();
  const { selectedPoint, selectPoint } = useSelection();
  const { path, setPath } = usePath();
  const { line, setLine, isRefused, refuse } = useTypedLine();
  const [open, setOpen] = useState<string | null>(null);
  const field = useRef<HTMLInputElement>(null);
  const read = line.trim() === '' ? null : addPathLine(path, line, document.circuit);
  const problems = useMemo(() => (path ? checkPath(path, document.circuit) : []), [path, document.circuit]);
  const enter = () => {
    if (!read) return;
    if (!read.ok) {
      refuse();
      return;
    }
    setPath(read.path);
    setLine('');
  };
  const setBlock = (id: string, values: Partial<BlockData>) =>
    setPath({ ...path!, blocks: path!.blocks.map((b) => (b.id === id ? { ...b, ...values } : b)) });
  return (
    <section className="zb-panel zb-sheet" aria-label="Path">
      <header className="zb-panel-head">
        {tabs}
        <span className="zb-dim">
          {path?.blocks.length ?? 0} blocks{problems.length > 0 ? ` · ${problems.length} to look at` : ''}
        </span>
      </header>
      <TypedLine
        field={field}
        label="Type blocks and links"
        placeholder="Microphone > First stage > Speaker"
        line={line}
        onLine={setLine}
        onKeyDown={(event) => event.key === 'Enter' && enter()}
        isRefused={isRefused}
        isFirst
        isLong
        note={
          read === null ? (
            <>
              A chain is audio; <span className="zb-mono">supply: Adapter &gt; First stage, Driver</span> says
              what feeds what. <Keys keys="Enter" /> adds it.
            </>
          ) : read.ok ? (
            <strong>{read.words}</strong>
          ) : (
            read.problem.message
          )
        }
      />
      {!path || path.blocks.length === 0 ? (
        <Beginning onPath={setPath} />
      ) : (
        <div className="zb-scroll" tabIndex={0} role="group" aria-label="List of blocks, scrolls">
          {problems.map((p) => (
            <p key={p.message} className="zb-problem">
              {p.message} <span className="zb-dim">{p.hint}</span>
            </p>
          ))}
          <table className="zb-table">
            <thead>
              <tr>
                <th>Block</th>
                <th>kind</th>
                <th className="zb-right">parts</th>
                <th className="zb-right">min</th>
                <th className="zb-right">weight</th>
                <th aria-label="Actions" />
              </tr>
            </thead>
            <tbody>
              {path.blocks.map((b) => (
                <BlockRow
                  key={b.id}
                  block={b}
                  isOpen={open === b.id}
                  onOpen={() => setOpen(open === b.id ? null : b.id)}
                  onChange={(values) => setBlock(b.id, values)}
                  twin={twinOf(path, b.id)}
                  others={path.blocks.filter((o) => o.id !== b.id)}
                  onTwin={(id) => setPath(withTwin(path, b.id, id))}
                  onRemove={() => setPath(withoutBlock(path, b.id))}
                />
              ))}
            </tbody>
          </table>
          <table className="zb-table">
            <thead>
              <tr>
                <th>Point</th>
                <th>where</th>
                <th>net</th>
                <th className="zb-right">min</th>
              </tr>
            </thead>
            <tbody>
              {(path.testPoints ?? []).map((t) => (
                <tr
                  key={t.id}
                  className={t.id === selectedPoint ? 'zb-row-selected' : undefined}
                  onClick={() => selectPoint(t.id)}
                >
                  <td className="zb-ref">{t.id}</td>
                  <td>{t.name}</td>
                  <td className="zb-mono">
                    <NetChoice point={t} path={path} onPath={setPath} />
                  </td>
                  <td className="zb-number">{t.minutes ?? 1}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
    </section>
  );
}

function NetChoice({
  point,
  path,
  onPath,
}: {
  point: NonNullable<PathData['testPoints']>[number];
  path: PathData;
  onPath: (path: PathData) => void;
}) {
  const { document } = useUnitContext();
  const nets = useMemo(
    () =>
      [...new Set(document.circuit.parts.flatMap((p) => Object.values(p.pins)))].map((value) => ({ value })),
    [document.circuit],
  );
  if (nets.length === 0) return <span className="zb-dim">{point.net ?? ''}</span>;
  const set = (net: string | undefined) =>
    onPath({
      ...path,
      testPoints: path.testPoints!.map((t) => {
        if (t.id !== point.id) return t;
        const { net: _net, ...rest } = t;
        return net === undefined ? rest : { ...rest, net };
      }),
    });
  return (
    <Select
      size="small"
      variant="borderless"
      showSearch
      allowClear
      value={point.net}
      options={nets}
      onChange={set}
      placeholder="–"
      aria-label={`Net of ${point.id}`}
      popupMatchSelectWidth={false}
    />
  );
}

interface RowProps {
  readonly block: BlockData;
  readonly isOpen: boolean;
  readonly onOpen: () => void;
  readonly onChange: (values: Partial<BlockData>) => void;
  /** The block of the other channel that this one mirrors. */
  readonly twin: string | undefined;
  readonly others: readonly BlockData[];
  readonly onTwin: (id: string | undefined) => void;
  readonly onRemove: () => void;
}

function BlockRow({ block, isOpen, onOpen, onChange, twin, others, onTwin, onRemove }: RowProps) {
  const { document } = useUnitContext();
  const name = block.name ?? block.id;
  return (
    <>
      <tr className={isOpen ? 'zb-row-selected' : undefined} onClick={onOpen}>
        <td className={styles.cut}>
          <button className="zb-link" aria-expanded={isOpen} onClick={(e) => (e.stopPropagation(), onOpen())}>
            <strong>{name}</strong>
          </button>
        </td>
        <td className="zb-dim zb-nowrap">{block.kind ?? 'block'}</td>
        <td className="zb-number zb-dim">{block.parts?.length ?? ''}</td>
        <td className="zb-number">{block.minutes ?? 1}</td>
        <td className="zb-number zb-dim">{block.prior ?? 'usual'}</td>
        <td className="zb-right">
          <button
            className="zb-icon"
            onClick={(e) => (e.stopPropagation(), onRemove())}
            aria-label={`Remove the block ${name}`}
          >
            <DeleteOutlined aria-hidden />
          </button>
        </td>
      </tr>
      {isOpen && (
        <tr className={styles.rowOpen}>
          <td colSpan={6}>
            <div className={styles.blockFields}>
              <label>
                <span className="zb-field-label">Kind</span>
                <AutoComplete
                  defaultValue={block.kind ?? ''}
                  options={KIND_OPTIONS}
                  showSearch={{ filterOption: (text, option) => option!.value.includes(text.toLowerCase()) }}
                  onBlur={(e) => {
                    const kind = (e.target as HTMLInputElement).value.trim();
                    if (kind !== (block.kind ?? '')) onChange({ kind: kind || undefined });
                  }}
                  onSelect={(kind: string) => onChange({ kind })}
                />
              </label>
              <label>
                <span className="zb-field-label">Minutes to reach</span>
                <NumberField
                  min={0.1}
                  max={600}
                  value={block.minutes ?? 1}
                  onDone={(minutes) => minutes !== null && onChange({ minutes })}
                />
              </label>
              <label>
                <span className="zb-field-label">Weight</span>
                <NumberField
                  min={0.01}
                  max={1000}
                  value={block.prior ?? null}
                  placeholder="usual"
                  onDone={(prior) => onChange({ prior: prior ?? undefined })}
                />
              </label>
              <label className="zb-wide">
                <span className="zb-field-label">Mirrors, in the other channel</span>
                <Select
                  allowClear
                  className="zb-wide"
                  value={twin}
                  options={others.map((o) => ({ value: o.id, label: o.name ?? o.id }))}
                  onChange={onTwin}
                  placeholder="nothing"
                />
              </label>
              {document.circuit.parts.length > 0 && (
                <label className="zb-wide">
                  <span className="zb-field-label">Parts</span>
                  <Select
                    mode="multiple"
                    className="zb-wide"
                    value={block.parts ?? []}
                    options={document.circuit.parts.map((p) => ({ value: p.ref }))}
                    onChange={(parts: string[]) => onChange({ parts })}
                  />
                </label>
              )}
            </div>
          </td>
        </tr>
      )}
    </>
  );
}

const twinOf = (path: PathData, id: string): string | undefined => {
  const pair = path.twins?.find((t) => t.includes(id));
  return pair && (pair[0] === id ? pair[1] : pair[0]);
};

/** The path with two blocks as each other's mirror; a block mirrors one other at most. */
function withTwin(path: PathData, id: string, other: string | undefined): PathData {
  const kept = (path.twins ?? []).filter(
    (t) => !t.includes(id) && (other === undefined || !t.includes(other)),
  );
  return { ...path, twins: other === undefined ? kept : [...kept, [id, other]] };
}

/** Nothing typed yet: propose from the circuit, or begin with the usual path of such a unit. */
function Beginning({ onPath }: { onPath: (path: PathData) => void }) {
  const { unit, document } = useUnitContext();
  const templates = templatesFor(unit.kind);
  return (
    <div className="zb-empty-words">
      <p>
        The path is the unit in blocks, and what flows between them. It is what the search works on when there
        is no schematic.
      </p>
      {document.circuit.parts.length > 0 && (
        <p className="zb-spaced">
          <Button type="primary" onClick={() => onPath(proposePath(document.circuit))}>
            Propose it from the circuit
          </Button>
        </p>
      )}
      <p className="zb-spaced">
        <Select
          className="zb-wide"
          placeholder="Begin with the usual path of a unit"
          aria-label="Begin with the usual path of a unit"
          options={templates.map((t) => ({ value: t.id, label: t.name }))}
          onChange={(id: string) => onPath(templates.find((t) => t.id === id)!.path)}
        />
      </p>
    </div>
  );
}
