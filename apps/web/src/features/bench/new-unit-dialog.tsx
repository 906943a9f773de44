import { HAZARDS, type Hazard } from '@halfsplit/contract';
import { Form, Input, Modal, Select } from 'antd';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { useSWRConfig } from 'swr';
import { ProblemError, sendWrite } from '../../api/client.ts';
import { newId } from '../../api/outbox-store.ts';

interface Fields {
  readonly name: string;
  readonly kind?: string;
  readonly hazards?: Hazard[];
  readonly notes?: string;
}

/** Asks for what the tag says; the rest is typed at the bench. */
export function NewUnitDialog({ open, onClose }: { open: boolean; onClose: () => void }) {
  const [form] = Form.useForm<Fields>();
  const [failure, setFailure] = useState<string | null>(null);
  const [isBusy, setIsBusy] = useState(false);
  const navigate = useNavigate();
  const { mutate } = useSWRConfig();
  const submit = async (fields: Fields) => {
    setIsBusy(true);
    setFailure(null);
    try {
      const { unitId } = await sendWrite('POST', '/units', newId(), fields);
      void mutate('units');
      form.resetFields();
      onClose();
      void navigate(`/units/${unitId}/trace`);
    } catch (error) {
      const hint = error instanceof ProblemError ? '' : ' What you typed stays here; try again.';
      setFailure(`${(error as Error).message}${hint}`);
    } finally {
      setIsBusy(false);
    }
  };
  return (
    <Modal
      open={open}
      title="New unit"
      okText="Put it on the bench"
      onCancel={onClose}
      onOk={() => form.submit()}
      confirmLoading={isBusy}
    >
      <Form<Fields> form={form} layout="vertical" onFinish={(fields) => void submit(fields)}>
        <Form.Item
          name="name"
          label="Name"
          rules={[{ required: true, whitespace: true, message: 'A unit needs a name.' }]}
        >
          <Input
            autoFocus
            placeholder="What the tag should say"
            maxLength={120}
            onPressEnter={() => form.submit()}
          />
        </Form.Item>
        <Form.Item name="kind" label="Kind">
          <Input
            placeholder="preamplifier, pedal, mixer, microphone"
            maxLength={80}
            onPressEnter={() => form.submit()}
          />
        </Form.Item>
        <Form.Item name="hazards" label="What in it can hurt">
          <Select
            mode="multiple"
            options={HAZARDS.map((h) => ({ value: h }))}
            placeholder="Mains, valve high tension, battery only"
          />
        </Form.Item>
        <Form.Item name="notes" label="Complaint, in the owner’s words">
          <Input.TextArea autoSize={{ minRows: 2, maxRows: 6 }} />
        </Form.Item>
        {failure && (
          <p className="hs-caution" role="alert">
            {failure}
          </p>
        )}
      </Form>
    </Modal>
  );
}
