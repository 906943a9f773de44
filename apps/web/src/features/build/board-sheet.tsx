import { MOST_HOLES, type BoardStyle, type Hole } from '@zemble/contract';
import { blankBoard, holeWords, placeFor, withPlace, type BoardProblem } from '@zemble/core';
import { Button, Checkbox, InputNumber, Popconfirm, Progress, Select } from 'antd';
import { useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import { NumberField } from '../../ui/number-field.tsx';
import { OneOf } from '../../ui/one-of.tsx';
import { ToneMark } from '../../ui/marks.tsx';
import { useSelection } from '../../unit/selection.tsx';
import { useUnitContext } from '../../unit/unit-context.tsx';
import styles from './board.module.css';
import type { Boards } from './use-boards.ts';
import { useProposal } from './use-proposal.ts';

interface Props {
  readonly tabs: ReactNode;
  readonly boards: Boards;
  readonly onMark: (holes: readonly Hole[]) => void;
}

/** What is wrong with a board, what is not on it yet, and what is to be cut and linked. */
export function BoardSheet({ tabs, boards, onMark }: Props) {
  const { board, report, circuit, keep } = boards;
  const { unit } = useUnitContext();
  const [why, setWhy] = useState<string | null>(null);
  const unplaced = report?.problems.filter((p) => p.code === 'unplaced').flatMap((p) => p.refs ?? []) ?? [];
  const problems = report?.problems.filter((p) => p.code !== 'unplaced') ?? [];
  const put = (ref: string) => {
    const place = board && placeFor(circuit, board, ref);
    setWhy(
      place ? null : `${ref} finds no place on this board: it is not made for holes, or there is no room.`,
    );
    if (board && place) keep(withPlace(board, place));
  };
  return (
    <section className="zb-panel zb-sheet" aria-label="Board sheet">
      <header className="zb-panel-head">
        {tabs}
        <span className="zb-grow" />
        {board && (
          <Link to={`/units/${unit.id}/print/board/${encodeURIComponent(board.id)}`} target="_blank">
            Print 1:1
          </Link>
        )}
      </header>
      <div className="zb-scroll" tabIndex={0} role="group" aria-label="Board sheet, scrolls">
        <BoardForm boards={boards} />
        {board && report && (
          <>
            <div className="zb-block" role="status">
              {report.ok ? (
                <p>
                  <ToneMark tone="in" /> It is the circuit as planned: every net on its own copper, every part
                  in its holes.
                </p>
              ) : (
                <p>
                  {[
                    ...(problems.length > 0 ? [`${count(problems.length, 'thing')} wrong`] : []),
                    ...(unplaced.length > 0 ? [`${count(unplaced.length, 'part')} not on it yet`] : []),
                  ].join(', ')}
                  .
                </p>
              )}
              <Problems problems={problems} onMark={onMark} />
            </div>
            {unplaced.length > 0 && (
              <div className="zb-block">
                <h3>Not on it yet</h3>
                <p className="zb-dim">A press puts it where nothing is in its way; drag it from there.</p>
                <div className={styles.chips}>
                  {unplaced.map((ref) => (
                    <button
                      key={ref}
                      className={styles.chip}
                      onClick={() => put(ref)}
                      aria-label={`Put ${ref} on the board`}
                    >
                      {ref}
                    </button>
                  ))}
                </div>
                {why !== null && (
                  <p className="zb-refused" role="alert">
                    {why}
                  </p>
                )}
              </div>
            )}
            <CutsAndLinks boards={boards} onMark={onMark} />
          </>
        )}
      </div>
    </section>
  );
}

const count = (n: number, of: string): string => (n === 0 ? `no ${of}` : `${n} ${of}${n === 1 ? '' : 's'}`);

function Problems({
  problems,
  onMark,
}: {
  readonly problems: readonly BoardProblem[];
  readonly onMark: Props['onMark'];
}) {
  const { selectRef, selectNet } = useSelection();
  return (
    <ul className={styles.problems}>
      {problems.map((p, i) => (
        <li key={i}>
          <button
            className="zb-link zb-problem"
            onClick={() => {
              onMark(p.at ?? []);
              selectRef(p.refs?.[0] ?? null);
              selectNet(p.nets?.[0] ?? null);
            }}
          >
            {p.message}
          </button>
        </li>
      ))}
    </ul>
  );
}

const USUAL = { columns: 24, rows: 14 } as const;

/** Which board, a new one, and the search for one that is right. */
function BoardForm({ boards }: { readonly boards: Boards }) {
  const { boards: all, board, choose, keep, remove } = boards;
  const { document } = useUnitContext();
  const [style, setStyle] = useState<BoardStyle>('strip');
  const [columns, setColumns] = useState<number>(USUAL.columns);
  const [rows, setRows] = useState<number>(USUAL.rows);
  const [seed, setSeed] = useState(1);
  const [notes, setNotes] = useState<readonly string[]>([]);
  const freeId = () => {
    for (let n = 1; ; n += 1) if (!all.some((b) => b.id === `b${n}`)) return `b${n}`;
  };
  const { state, start, cancel } = useProposal((proposal) => {
    keep(proposal.board);
    setNotes(proposal.notes);
  });
  const propose = () => {
    // Asked again, another seed proposes another board.
    start(document, { style, columns, rows, seed, id: freeId() });
    setSeed(seed + 1);
  };
  return (
    <div className="zb-block">
      {all.length > 0 && (
        <div className={styles.form}>
          <Select
            size="small"
            value={board?.id}
            onChange={choose}
            options={all.map((b) => ({
              value: b.id,
              label: `${b.name ?? b.id}: ${b.style === 'strip' ? 'strips' : 'pads'}, ${b.columns} by ${b.rows}`,
            }))}
            aria-label="Which board"
            popupMatchSelectWidth={false}
          />
          {board && <BoardEdges boards={boards} />}
          {board && (
            <Popconfirm
              title={`Take board ${board.id} out of the record?`}
              okText="Take it out"
              cancelText="Keep it"
              onConfirm={() => remove(board.id)}
            >
              <Button size="small" type="text">
                Take it out
              </Button>
            </Popconfirm>
          )}
        </div>
      )}
      <div className={styles.form}>
        <OneOf<BoardStyle>
          label="Style of a new board"
          options={[
            { value: 'strip', label: 'Strips' },
            { value: 'pads', label: 'Pads' },
          ]}
          value={style}
          onChange={setStyle}
        />
        <label className={styles.sizes}>
          up to{' '}
          <InputNumber
            size="small"
            min={1}
            max={MOST_HOLES}
            precision={0}
            value={columns}
            onChange={(v) => setColumns(v ?? USUAL.columns)}
            aria-label="Columns"
          />{' '}
          columns,{' '}
          <InputNumber
            size="small"
            min={1}
            max={MOST_HOLES}
            precision={0}
            value={rows}
            onChange={(v) => setRows(v ?? USUAL.rows)}
            aria-label="Rows"
          />{' '}
          rows
        </label>
      </div>
      <div className={styles.form}>
        {state.is === 'running' ? (
          <>
            <Progress percent={Math.round(state.fraction * 100)} size="small" style={{ width: 160 }} />
            <Button size="small" onClick={cancel}>
              Stop
            </Button>
          </>
        ) : (
          <Button type="primary" onClick={propose}>
            {seed > 1 ? 'Propose another' : 'Propose a board'}
          </Button>
        )}
        <Button onClick={() => keep(blankBoard(freeId(), style, columns, rows))}>An empty one</Button>
      </div>
      {state.is === 'refused' && (
        <p className="zb-refused" role="alert">
          {state.why}
        </p>
      )}
      {notes.map((note) => (
        <p key={note} className="zb-edge">
          {note}
        </p>
      ))}
    </div>
  );
}

/** More or fewer holes at the right and the foot of a board. */
function BoardEdges({ boards: { board, keep } }: { readonly boards: Boards }) {
  if (!board) return null;
  return (
    <span className={styles.sizes}>
      <NumberField
        size="small"
        min={1}
        max={MOST_HOLES}
        value={board.columns}
        onDone={(v) => v !== null && Number.isInteger(v) && keep({ ...board, columns: v })}
        aria-label="Columns of this board"
      />{' '}
      by{' '}
      <NumberField
        size="small"
        min={1}
        max={MOST_HOLES}
        value={board.rows}
        onDone={(v) => v !== null && Number.isInteger(v) && keep({ ...board, rows: v })}
        aria-label="Rows of this board"
      />
    </span>
  );
}

/** Cuts and links of a board, to be ticked as they are made. */
function CutsAndLinks({
  boards: { board },
  onMark,
}: {
  readonly boards: Boards;
  readonly onMark: Props['onMark'];
}) {
  const { unit, change } = useUnitContext();
  if (!board || board.cuts.length + board.links.length === 0) return null;
  const entries = [
    ...board.cuts.map((hole) => ({
      id: `${board.id}:cut:${hole.join()}`,
      words: `cut at ${holeWords(hole)}`,
      holes: [hole],
    })),
    ...board.links.map(({ from, to }) => ({
      id: `${board.id}:link:${from.join()}-${to.join()}`,
      words: `link ${holeWords(from)} to ${holeWords(to)}`,
      holes: [from, to],
    })),
  ];
  return (
    <div className="zb-block">
      <h3>
        {count(board.cuts.length, 'cut')}, {count(board.links.length, 'link')}
      </h3>
      <p className="zb-dim">Columns and rows are counted from the parts’ side.</p>
      <ul className={styles.checklist}>
        {entries.map(({ id, words, holes }) => (
          <li key={id}>
            <Checkbox
              checked={Object.hasOwn(unit.ticks, id)}
              onChange={(event) => {
                onMark(holes);
                change({
                  type: 'tick-step',
                  id,
                  words: `Board ${board.id}: ${words}.`,
                  isDone: event.target.checked,
                  at: new Date().toISOString(),
                });
              }}
            >
              {words}
            </Checkbox>
          </li>
        ))}
      </ul>
    </div>
  );
}
