import { DownloadOutlined, InboxOutlined } from '@ant-design/icons';
import type { StockRow } from '@zemble/contract';
import { parseStockLine, readDrawerCsv, searchDrawer, writeDrawerCsv } from '@zemble/core';
import { Button, Input, Modal, Spin, type InputRef } from 'antd';
import { useMemo, useRef, useState } from 'react';
import { useNotices } from '../../ui/notices.tsx';
import { addStock } from '../../api/drawer.ts';
import { stockItemWords } from '../../api/stock.ts';
import { useWorkshopChange } from '../../api/outbox-context.tsx';
import { FileButton } from '../../ui/file-button.tsx';
import { saveText } from '../../ui/save-text.ts';
import { textOfFile } from '../../ui/text-of-file.ts';
import { WorkshopTop } from '../../ui/workshop-top.tsx';
import { Needs } from './needs.tsx';
import { StockTable } from './stock-table.tsx';
import { useDrawer } from './use-drawer.ts';
import { useSupply } from './use-supply.ts';
import styles from './drawer.module.css';

/** What the workshop has, what the units need of it, and what came out of them. */
export function DrawerPage() {
  const drawer = useDrawer();
  const supply = useSupply(drawer.items);
  const [text, setText] = useState('');
  const shown = useMemo(() => searchDrawer(drawer.items, text), [drawer.items, text]);
  // The server is away, and nothing has been typed in here since.
  const isUnknown = drawer.items.length === 0 && drawer.sentence !== null;
  return (
    <div className={styles.page}>
      <WorkshopTop />
      <main className={styles.main}>
        <section aria-label="Drawer">
          <div className="zb-panel-head">
            <h1>Drawer</h1>
            <Input
              className={styles.search}
              value={text}
              onChange={(event) => setText(event.target.value)}
              placeholder="Find 4k7, TL072, film, A3"
              aria-label="Find in the drawer"
              allowClear
            />
            <span className="zb-dim" role="status">
              {isUnknown
                ? ''
                : shown.length === drawer.items.length
                  ? `${drawer.items.length} sorts`
                  : `${shown.length} of ${drawer.items.length} sorts`}
            </span>
            <span className="zb-grow" />
            <CsvButtons items={drawer.items} />
          </div>
          <StockEntry />
          {drawer.sentence && (
            <p className="zb-caution">{drawer.sentence} The drawer is shown as soon as it is back.</p>
          )}
          {drawer.isLoading ? (
            <Spin />
          ) : shown.length > 0 ? (
            <StockTable items={shown} reserved={supply.reserved} />
          ) : (
            <p className="zb-empty-words">{isUnknown ? '' : emptyWords(drawer.items.length, text)}</p>
          )}
        </section>
        <Needs supply={supply} drawer={drawer.items} />
      </main>
    </div>
  );
}

const emptyWords = (count: number, text: string): string =>
  count > 0
    ? `Nothing in the drawer answers to “${text.trim()}”. Find it by its value, its type, its technology or its place.`
    : 'Nothing here yet. Type a line above, or bring in a table with the columns kind, value, tolerance, rating, ' +
      'technology, count and place. What is here is offered first when values are looked for.';

/** One line for one item: what it is as it would be read, while it is typed. */
function StockEntry() {
  const change = useWorkshopChange();
  const [text, setText] = useState('');
  const [added, setAdded] = useState<string | null>(null);
  const field = useRef<InputRef>(null);
  const read = text.trim() === '' ? null : parseStockLine(text);
  const add = () => {
    if (!read?.ok) return;
    change(addStock([read.item]));
    setAdded(`${stockItemWords(read.item)} put in.`);
    setText('');
    field.current?.focus();
  };
  return (
    <div className="zb-entry">
      <Input
        ref={field}
        className="zb-mono"
        value={text}
        maxLength={200}
        onChange={(event) => setText(event.target.value)}
        onPressEnter={add}
        placeholder="4k7 1% 0.25W metal film x50 in A3"
        aria-label="Put in"
      />
      <p className="zb-entry-note" role="status">
        {read === null ? (
          (added ?? 'What, its tolerance and rating, how many, and where it lies. Enter puts it in.')
        ) : read.ok ? (
          <strong>{stockItemWords(read.item)}</strong>
        ) : (
          <span className="zb-refused">{read.problem.message}</span>
        )}
      </p>
    </div>
  );
}

/** The drawer as a table to take away, and one to bring in. */
function CsvButtons({ items }: { readonly items: readonly StockRow[] }) {
  const change = useWorkshopChange();
  const notices = useNotices();
  const [modal, dialog] = Modal.useModal();
  const bringIn = async (file: File) => {
    const { items: read, problems } = readDrawerCsv(await textOfFile(file));
    const put = () => {
      if (read.length > 0) change(addStock(read));
      notices.success({ title: `${read.length} sorts put in.` });
    };
    if (problems.length === 0) return put();
    modal.confirm({
      title: `${problems.length} lines of ${file.name} cannot be read`,
      content: (
        <ul className={styles.problems}>
          {problems.map((p) => (
            <li key={p.message}>{p.message}</li>
          ))}
        </ul>
      ),
      okText: `Put the other ${read.length} in`,
      okButtonProps: { disabled: read.length === 0 },
      cancelText: 'Put nothing in',
      onOk: put,
    });
  };
  return (
    <>
      {dialog}
      <FileButton accept=".csv,text/csv,text/plain" onFile={(file) => void bringIn(file)}>
        <InboxOutlined aria-hidden /> Bring in a table
      </FileButton>
      <Button
        icon={<DownloadOutlined />}
        disabled={items.length === 0}
        onClick={() => saveText('drawer.csv', writeDrawerCsv(items), 'text/csv')}
      >
        Save as a table
      </Button>
    </>
  );
}
