import {
  formatQuantity,
  formatSheetLine,
  KINDS,
  readPart,
  QUANTITY_KINDS,
  type UnreadPart,
} from '@halfsplit/core';
import { partResourceSchema, readoutResourceSchema } from '@halfsplit/contract';
import { Button, Modal } from 'antd';
import { useOutbox, useOutboxState } from '../api/outbox-context.tsx';
import type { Change } from '../api/pending.ts';

const lineOf = (part: UnreadPart): string => formatSheetLine(readPart(part, part.ref, []));

/** Two values of one thing: what is there now, and what you entered. You choose; nothing is dropped silently. */
export function ConflictDialog() {
  const outbox = useOutbox();
  const { conflict } = useOutboxState();
  if (!conflict) return null;
  const { write, problem } = conflict;
  return (
    <Modal
      open
      title="Changed elsewhere meanwhile"
      closable={false}
      footer={[
        <Button key="theirs" onClick={() => outbox.resolve('theirs')}>
          Keep what is there
        </Button>,
        <Button key="mine" type="primary" onClick={() => outbox.resolve('mine')}>
          Use mine
        </Button>,
      ]}
    >
      <p>{problem.detail}</p>
      <dl className="hs-versus">
        <dt>There now</dt>
        <dd>{describeCurrent(problem.current)}</dd>
        <dt>Yours</dt>
        <dd>{describeChange(write.change, problem.current)}</dd>
      </dl>
    </Modal>
  );
}

function describeCurrent(current: unknown): string {
  const part = partResourceSchema.safeParse(current);
  if (part.success) return lineOf(part.data.part);
  const readout = readoutResourceSchema.safeParse(current);
  if (readout.success)
    return `${readout.data.readout.name}, wanted ${JSON.stringify(readout.data.readout.want ?? {})}`;
  return 'A newer state of the unit.';
}

function describeChange(change: Change, current: unknown): string {
  const part = partResourceSchema.safeParse(current);
  switch (change.type) {
    case 'update-part':
      return lineOf(change.part);
    case 'remove-part':
      return 'Remove it.';
    case 'add-reading': {
      const kind = part.success ? KINDS[part.data.part.kind].value : null;
      return `A reading of ${typeof change.value === 'number' ? formatQuantity(change.value, QUANTITY_KINDS[kind ?? 'number']) : change.value}.`;
    }
    case 'update-readout':
      return `${change.readout.name}, wanted ${JSON.stringify(change.readout.want ?? {})}`;
    case 'accept-plan':
      return change.reason;
    case 'update-unit':
      return Object.entries(change.values)
        .map(([field, value]) => `${field}: ${String(value)}`)
        .join(', ');
    default:
      return 'Your change.';
  }
}
