import { BulbOutlined } from '@ant-design/icons';
import { Button, Tooltip } from 'antd';
import { useMode } from './mode.tsx';

/** Changes between paper and the dim bench. */
export function ModeButton() {
  const { mode, toggle } = useMode();
  const label = mode === 'paper' ? 'Dim the bench' : 'Light paper';
  return (
    <Tooltip title={label}>
      <Button type="text" aria-label={label} icon={<BulbOutlined />} onClick={toggle} />
    </Tooltip>
  );
}
