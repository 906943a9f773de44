import {
  DownloadOutlined,
  InboxOutlined,
  MoreOutlined,
  PlusOutlined,
  WarningOutlined,
} from '@ant-design/icons';
import { DELETED_DAYS, MOST_LISTED, UNIT_PLACES, type UnitPlace, type UnitSummary } from '@zemble/contract';
import { Button, Dropdown, Input, Spin } from 'antd';
import dayjs from 'dayjs';
import relativeTime from 'dayjs/plugin/relativeTime';
import { lazy, Suspense, useCallback, useState, type DragEvent, type ReactNode } from 'react';
import { Link, useNavigate } from 'react-router';
import { useSWRConfig } from 'swr';
import { useNotices } from '../../ui/notices.tsx';
import { requestFor } from '../../api/act.ts';
import { archiveUrl, fileUrl, ProblemError, sendWrite } from '../../api/client.ts';
import { newId } from '../../api/new-id.ts';
import { useOutbox } from '../../api/outbox-context.tsx';
import { isUnitsKey } from '../../api/unit-list.ts';
import { useUnits } from '../../api/use-units.ts';
import { OneOf } from '../../ui/one-of.tsx';
import { RAIL } from '../../unit/stages.ts';
import { UnitNumber } from '../../ui/unit-number.tsx';
import { WorkshopTop } from '../../ui/workshop-top.tsx';
import { FileButton } from '../../ui/file-button.tsx';
import type { Why } from './new-unit-dialog.tsx';
import styles from './bench.module.css';

dayjs.extend(relativeTime);

const NewUnitDialog = lazy(() => import('./new-unit-dialog.tsx').then((m) => ({ default: m.NewUnitDialog })));

/** Rows of a long bench that are drawn at first, and with each asking for more. */
const ROWS_AT_ONCE = 100;
/** From so many units on, they are looked for by name. */
const MANY = 12;

/** Largest file that is read at all, in bytes; the reader's own limit lies below. */
const LARGEST_FILE = 10_000_000;

/** All units on the bench. */
export function BenchPage() {
  const [why, setWhy] = useState<Why | null>(null);
  const { open, isDragging, dragHandlers } = useOpenFile();
  const [place, setPlace] = useState<UnitPlace>('bench');
  const [text, setText] = useState('');
  const [limit, setLimit] = useState(ROWS_AT_ONCE);
  const find = text.trim();
  const { units, total, places, error } = useUnits({ place, find, limit });
  const put = usePutUnit();
  const samples = (units ?? []).filter((u) => u.isSample === true && u.place === 'bench');
  return (
    <div className={styles.bench} {...dragHandlers}>
      <WorkshopTop />
      <main className={styles.benchMain}>
        <Doors samples={samples} onNew={setWhy} onClear={() => samples.forEach((u) => put(u, 'away'))} />
        <div className="zb-panel-head">
          <h1>{PLACES[place]}</h1>
          {places.away + places.deleted > 0 && (
            <OneOf<UnitPlace>
              label="Which units"
              value={place}
              onChange={setPlace}
              options={UNIT_PLACES.map((value) => ({
                value,
                label: `${PLACES[value]} (${places[value]})`,
              }))}
            />
          )}
          {(find !== '' || total > MANY) && (
            <Input
              className={styles.find}
              value={text}
              onChange={(event) => setText(event.target.value)}
              placeholder="Find by name or number"
              aria-label="Find a unit"
              maxLength={100}
              allowClear
            />
          )}
          <span className="zb-grow" />
          <FileButton accept=".json,application/json" onFile={(file) => void open(file)}>
            <InboxOutlined aria-hidden /> Open a unit file
          </FileButton>
          <Button
            href={archiveUrl}
            icon={<DownloadOutlined />}
            title="All units with their readings, logs and photos, as one file"
          >
            Save the bench
          </Button>
          <Button type="primary" icon={<PlusOutlined />} onClick={() => setWhy('new')}>
            New unit
          </Button>
        </div>
        {error && <p className="zb-caution">{error.message} The list is shown as soon as it is back.</p>}
        {units ? (
          <UnitsTable
            units={units}
            total={total}
            onMore={() => setLimit((most) => Math.min(MOST_LISTED, most + ROWS_AT_ONCE))}
            empty={
              find !== '' ? (
                `No unit is called “${find}” here.`
              ) : place === 'bench' ? (
                <EmptyBench onNew={() => setWhy('new')} />
              ) : (
                'Nothing is here.'
              )
            }
            onPut={put}
          />
        ) : (
          !error && <Spin />
        )}
        <p className={`zb-dim ${styles.dropHint}`}>A unit file can be dropped anywhere on this page.</p>
      </main>
      {isDragging && <div className={styles.drop}>Drop the unit file to put it on the bench</div>}
      {why !== null && (
        <Suspense fallback={null}>
          <NewUnitDialog why={why} onClose={() => setWhy(null)} />
        </Suspense>
      )}
    </div>
  );
}

interface DoorsProps {
  readonly samples: readonly UnitSummary[];
  readonly onNew: (why: Why) => void;
  readonly onClear: () => void;
}

/** What this is, in a sentence, and where to begin. */
function Doors({ samples, onNew, onClear }: DoorsProps) {
  const navigate = useNavigate();
  const [finished] = [...samples].sort((a, b) => b.measuredCount - a.measuredCount);
  return (
    <section className={styles.doors} aria-label="Where to begin">
      <p>
        Find what is wrong in an amplifier, effect or microphone, work out a change, do it step by step, and
        prove it.
      </p>
      <div>
        <Button onClick={() => onNew('broken')}>Something is broken</Button>
        <Button onClick={() => onNew('change')}>I want to change something</Button>
        {finished && (
          <>
            <Button onClick={() => void navigate(`/units/${finished.id}/measure`)}>
              Show me one that is measured
            </Button>
            <Button type="text" onClick={onClear} title="They can be brought back from there">
              Put the samples away
            </Button>
          </>
        )}
      </div>
    </section>
  );
}

const stagePath = (unit: UnitSummary) =>
  `/units/${unit.id}/${RAIL.some((r) => r.stage === unit.stage) ? unit.stage : 'trace'}`;

interface UnitsTableProps {
  readonly units: readonly UnitSummary[];
  /** How many there are, also where not all are listed. */
  readonly total: number;
  /** What stands there when there are none. */
  readonly empty: ReactNode;
  readonly onMore: () => void;
  readonly onPut: Put;
}

function UnitsTable({ units, total, onMore, empty, onPut }: UnitsTableProps) {
  return (
    <div className={styles.units}>
      <table className="zb-table">
        <thead>
          <tr>
            <th>Unit</th>
            <th className={styles.wideOnly}>Kind</th>
            <th>Stage</th>
            <th className="zb-right">Measured</th>
            <th>Hazards</th>
            <th className={styles.wideOnly}>Last activity</th>
            <th aria-label="Actions" />
          </tr>
        </thead>
        <tbody>
          {units.map((u) => (
            <tr key={u.id} className={styles.row}>
              <td>
                <Link to={stagePath(u)} className={`zb-tag ${styles.tagSmall}`}>
                  <span className="zb-tag-hole" aria-hidden />
                  <strong>{u.name}</strong> <UnitNumber number={u.number} />
                </Link>{' '}
                {u.isSample === true && <span className="zb-dim">sample</span>}
              </td>
              <td className={styles.wideOnly}>{u.kind}</td>
              <td>{u.stage.charAt(0).toUpperCase() + u.stage.slice(1)}</td>
              <td className="zb-number">{u.measuredCount} parts</td>
              <td>
                {u.hazards.length === 0 ? (
                  <span className="zb-dim">none noted</span>
                ) : (
                  <span className="zb-hazard">
                    <WarningOutlined aria-hidden /> {u.hazards.join(' · ')}
                  </span>
                )}
              </td>
              <td className={styles.wideOnly}>
                <span className={styles.last}>
                  {dayjs(u.lastActivityAt).fromNow()} <span className="zb-dim">{u.lastActivity}</span>
                </span>
              </td>
              <td className="zb-right">
                <UnitMenu unit={u} onPut={onPut} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {units.length < total && (
        <p className="zb-empty-words">
          {units.length} of {total} units, those that were worked on last.{' '}
          {units.length < MOST_LISTED && <Button onClick={onMore}>Show more</Button>}
        </p>
      )}
      {units.length === 0 && <div className="zb-empty-words">{empty}</div>}
    </div>
  );
}

const PLACES: Readonly<Record<UnitPlace, string>> = {
  bench: 'On the bench',
  away: 'Put away',
  deleted: 'Deleted',
};
/** Where a unit can be put from where it is, in the words of the menu. */
const MOVES: Readonly<Record<UnitPlace, readonly (readonly [to: UnitPlace, words: string])[]>> = {
  bench: [
    ['away', 'Put away'],
    ['deleted', 'Delete'],
  ],
  away: [
    ['bench', 'Back to the bench'],
    ['deleted', 'Delete'],
  ],
  deleted: [['bench', 'Back to the bench']],
};

type Put = (unit: UnitSummary, place: UnitPlace) => void;

/** Puts a unit somewhere else; a deleted one can be brought back at once. */
function usePutUnit(): Put {
  const outbox = useOutbox();
  const notices = useNotices();
  return useCallback(
    (unit, place) => {
      const send = (to: UnitPlace) => {
        void outbox.add(unit.id, { type: 'update-unit', seen: {}, values: { place: to } });
      };
      send(place);
      if (place !== 'deleted') return;
      const key = `deleted ${unit.id}`;
      notices.info({
        key,
        title: `${unit.name} is deleted.`,
        description: `It can be brought back for ${DELETED_DAYS} days.`,
        actions: (
          <Button
            size="small"
            onClick={() => {
              send(unit.place);
              notices.destroy(key);
            }}
          >
            Take back
          </Button>
        ),
      });
    },
    [outbox, notices],
  );
}

function UnitMenu({ unit, onPut }: { unit: UnitSummary; onPut: Put }) {
  return (
    <Dropdown
      trigger={['click']}
      menu={{
        items: [
          { key: 'export', label: <a href={fileUrl(unit.id)}>Export</a> },
          ...MOVES[unit.place].map(([to, label]) => ({ key: to, label, danger: to === 'deleted' })),
        ],
        onClick: ({ key }) => {
          const to = UNIT_PLACES.find((place) => place === key);
          if (to) onPut(unit, to);
        },
      }}
    >
      <Button
        size="small"
        type="text"
        icon={<MoreOutlined />}
        className={styles.more}
        aria-label={`More about ${unit.name}`}
      />
    </Dropdown>
  );
}

function EmptyBench({ onNew }: { onNew: () => void }) {
  return (
    <>
      <p>
        Nothing on the bench. Put a unit there, type its parts one line each, and it draws and computes
        itself.
      </p>
      <Button onClick={onNew}>New unit</Button>
    </>
  );
}

/** Opens a unit file from a picker or a drop; what is wrong with it is told, and the file stays as it is. */
function useOpenFile() {
  const notices = useNotices();
  const navigate = useNavigate();
  const outbox = useOutbox();
  const { mutate } = useSWRConfig();
  const [isDragging, setIsDragging] = useState(false);
  const refuse = (name: string, title: string, description?: string) =>
    notices.error({ title: `${name}: ${title}`, description, duration: 0 });
  const open = async (file: File) => {
    if (file.size > LARGEST_FILE) {
      refuse(
        file.name,
        `the file is ${Math.ceil(file.size / 1e6)} MB, and a unit file is at most 10 MB.`,
        'Check that it is a unit file and not a picture or a recording.',
      );
      return;
    }
    const text = await file.text();
    const [key, id] = [newId(), newId()];
    const entry = { type: 'open-file', text, fileName: file.name } as const;
    const { method, path, body } = requestFor({ unitId: id, change: entry });
    try {
      await sendWrite(method, path, key, body);
    } catch (error) {
      if (error instanceof ProblemError) return refuse(file.name, error.problem.detail, error.problem.hint);
      // Under the same key: what has come without our hearing of it is not opened twice.
      await outbox.add(id, entry, key);
      if (outbox.getSnapshot().notKept !== null)
        return notices.warning({
          title: `${file.name} waits in this page only`,
          description: `${(error as Error).message} Leave the page open until the server is back.`,
          duration: 0,
        });
      notices.info({
        title: `${file.name} is kept here`,
        description: `${(error as Error).message} It is opened as soon as the server is back.`,
      });
      return;
    }
    void mutate(isUnitsKey);
    void navigate(`/units/${id}/trace`);
  };
  const hasFile = (event: DragEvent) => event.dataTransfer.types.includes('Files');
  const dragHandlers = {
    onDragOver: (event: DragEvent) => {
      if (!hasFile(event)) return;
      event.preventDefault();
      setIsDragging(true);
    },
    onDragLeave: (event: DragEvent) => {
      if (event.currentTarget === event.target) setIsDragging(false);
    },
    onDrop: (event: DragEvent) => {
      event.preventDefault();
      setIsDragging(false);
      const file = event.dataTransfer.files[0];
      if (file) void open(file);
    },
  };
  return { open, isDragging, dragHandlers };
}
