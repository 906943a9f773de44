import { createUnitSchema, HAZARDS, type Hazard } from '@zemble/contract';
import { Form, Input, Modal, Select } from 'antd';
import { useNavigate } from 'react-router';
import { useOutbox } from '../../api/outbox-context.tsx';
import { newId } from '../../api/new-id.ts';

interface Fields {
  readonly name: string;
  readonly kind?: string;
  readonly hazards?: Hazard[];
  readonly complaint?: string;
}

/** As long as the complaint of Intake may be. */
const MOST_COMPLAINT = 5000;

/** Asks for what the tag says; the rest is typed at the bench. */
export function NewUnitDialog({ onClose }: { onClose: () => void }) {
  const [form] = Form.useForm<Fields>();
  const outbox = useOutbox();
  const navigate = useNavigate();
  const submit = ({ complaint = '', ...fields }: Fields) => {
    const id = newId();
    const intake = complaint.trim() === '' ? {} : { words: complaint.trim() };
    const values = createUnitSchema.omit({ id: true }).parse({ ...fields, intake });
    void outbox.add(id, { type: 'create-unit', values, at: new Date().toISOString() });
    onClose();
    void navigate(`/units/${id}/trace`);
  };
  return (
    <Modal open title="New unit" okText="Put it on the bench" onCancel={onClose} onOk={() => form.submit()}>
      <Form<Fields> form={form} layout="vertical" onFinish={submit}>
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
        <Form.Item name="complaint" label="Complaint, in the owner’s words">
          <Input.TextArea maxLength={MOST_COMPLAINT} autoSize={{ minRows: 2, maxRows: 6 }} />
        </Form.Item>
      </Form>
    </Modal>
  );
}
