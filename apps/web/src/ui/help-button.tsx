import { QuestionCircleOutlined } from '@ant-design/icons';
import { Button, Tooltip } from 'antd';
import { openHelp } from './help-state.ts';

/** The way to the help of the screen, in every header. */
export function HelpButton() {
  return (
    <Tooltip title="What this screen is for, its keys and words">
      <Button type="text" aria-label="Help" icon={<QuestionCircleOutlined />} onClick={() => openHelp()} />
    </Tooltip>
  );
}
