import {
  changeResourceSchema,
  partResourceSchema,
  readoutResourceSchema,
  stockRowSchema,
} from '@zemble/contract';
import { Button, Modal } from 'antd';
import { z } from 'zod';
import { stockItemWords } from '../api/stock.ts';
import { useOutbox } from '../api/outbox-context.tsx';
import type { Conflict } from '../api/outbox.ts';
import { changeWords, circuitChangeWords, fieldsWords, lineOf, readoutWords } from './change-words.ts';
import styles from './saving.module.css';

/** Two values of one thing: what is there now, and what you entered. You choose; nothing is dropped silently. */
export function ConflictDialog({ conflict: { write, problem } }: { conflict: Conflict }) {
  const outbox = useOutbox();
  return (
    <Modal
      open
      title="Changed elsewhere meanwhile"
      closable={false}
      footer={[
        <Button key="theirs" onClick={() => void outbox.resolve('theirs')}>
          Keep what is there
        </Button>,
        <Button key="mine" type="primary" onClick={() => void outbox.resolve('mine')}>
          Use mine
        </Button>,
      ]}
    >
      <p>{problem.detail}</p>
      <dl className={styles.versus}>
        <dt>There now</dt>
        <dd>{describeCurrent(problem.current)}</dd>
        <dt>Yours</dt>
        <dd>{changeWords(write.change, problem.current)}</dd>
      </dl>
    </Modal>
  );
}

/** Fields of a unit as they are now. */
const fieldsSchema = z.object({ values: z.record(z.string(), z.unknown()) });

/** A thing of a field as it is now: a part on a board, a wire, a block. */
const thingSchema = z.object({ at: z.array(z.string()).min(1), value: z.unknown() });
const thingWords = ({ at, value }: z.infer<typeof thingSchema>): string =>
  value === null || value === undefined
    ? `${at.at(-1)} is not there any more.`
    : fieldsWords({ [at.at(-1)!]: value });

function describeCurrent(current: unknown): string {
  const part = partResourceSchema.safeParse(current);
  if (part.success) return lineOf(part.data.part);
  const readout = readoutResourceSchema.safeParse(current);
  if (readout.success) return readoutWords(readout.data.readout);
  const change = changeResourceSchema.safeParse(current);
  if (change.success) return circuitChangeWords(change.data.change);
  const stock = stockRowSchema.safeParse(current);
  if (stock.success) return stockItemWords(stock.data);
  const thing = thingSchema.safeParse(current);
  if (thing.success) return thingWords(thing.data);
  const fields = fieldsSchema.safeParse(current);
  return fields.success ? fieldsWords(fields.data.values) : 'A newer state of the unit.';
}
