import { Button, Dropdown } from 'antd';
import { useState } from 'react';
import { readingsUrl } from '../../api/client.ts';
import { FromChangeDialog } from './from-change-dialog.tsx';
import { TableDialog } from './table-dialog.tsx';

interface Props {
  readonly unitId: string;
  readonly isSpoken: boolean;
  readonly onSpoken: (isSpoken: boolean) => void;
}

type Dialog = 'change' | 'table';

/** What is needed now and then: tables in and out, a value from a change, verdicts read out. */
export function MoreMenu({ unitId, isSpoken, onSpoken }: Props) {
  const [dialog, setDialog] = useState<Dialog | null>(null);
  const close = () => setDialog(null);
  return (
    <>
      <Dropdown
        trigger={['click']}
        menu={{
          items: [
            {
              key: 'change',
              label: 'A value from a change…',
              onClick: () => setDialog('change'),
            },
            { key: 'table', label: 'Take in a table…', onClick: () => setDialog('table') },
            {
              key: 'out',
              label: (
                <a href={readingsUrl(unitId)} download>
                  Give out as a table
                </a>
              ),
            },
            {
              key: 'speak',
              label: isSpoken ? 'Stop reading verdicts out' : 'Read verdicts out',
              onClick: () => onSpoken(!isSpoken),
            },
          ],
        }}
      >
        <Button type="text">More</Button>
      </Dropdown>
      {dialog === 'change' && <FromChangeDialog onClose={close} />}
      {dialog === 'table' && <TableDialog onClose={close} />}
    </>
  );
}
