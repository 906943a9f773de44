import { MOST_ACTS } from '@zemble/contract';
import { readReadingsCsv } from '@zemble/core';
import { Input, Modal } from 'antd';
import { useState } from 'react';
import { asOneEntry } from '../../api/act.ts';
import { newId } from '../../api/new-id.ts';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { FileButton } from '../../ui/file-button.tsx';
import { textOfFile } from '../../ui/text-of-file.ts';

/** Takes a table of readings in, pasted or from a file. */
export function TableDialog({ onClose }: { onClose: () => void }) {
  const { unit, change } = useUnitContext();
  const [text, setText] = useState('');
  const read = text.trim() === '' ? null : readReadingsCsv(text, unit);
  const take = () => {
    const takenAt = new Date().toISOString();
    const readings = (read?.rows ?? []).map(({ line: _line, place, ...reading }) => ({
      type: 'add-reading' as const,
      id: newId(),
      ...place.of,
      seen: place.version,
      ...reading,
      takenAt,
    }));
    // A table is one entry, unless it is longer than one can be.
    for (let from = 0; from < readings.length; from += MOST_ACTS)
      change(
        asOneEntry(readings.slice(from, from + MOST_ACTS), `Took in a table of ${readings.length} readings.`),
      );
    onClose();
  };
  return (
    <Modal
      open
      title="Readings from a table"
      okText={read ? `Take in ${read.rows.length} readings` : 'Take in'}
      okButtonProps={{ disabled: !read || read.rows.length === 0 }}
      onOk={take}
      onCancel={onClose}
    >
      <p className="zb-hint">
        One line a reading: part, value, and if you like unit, condition, instrument. Comma, semicolon or tab.
      </p>
      <Input.TextArea
        value={text}
        onChange={(e) => setText(e.target.value)}
        autoSize={{ minRows: 6, maxRows: 14 }}
        placeholder={'R7,62k\nC3,3.9u,,in circuit'}
        aria-label="Table of readings"
        autoFocus
      />
      <FileButton
        accept=".csv,text/csv,text/plain"
        className="zb-spaced"
        onFile={(file) => void textOfFile(file).then(setText)}
      >
        From a file
      </FileButton>
      {read && (
        <p role="status">
          {read.rows.length} readings can be taken in.
          {read.problems.length > 0 && ' These lines cannot, and are left out:'}
        </p>
      )}
      {read?.problems.map((p) => (
        <p key={p.message} className="zb-out">
          {p.message}
        </p>
      ))}
    </Modal>
  );
}
