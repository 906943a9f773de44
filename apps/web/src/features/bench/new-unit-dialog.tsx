import { createUnitSchema, HAZARDS, type Hazard } from '@zemble/contract';
import { Form, Input, Modal, Select } from 'antd';
import { useNavigate } from 'react-router';
import { useOutbox } from '../../api/outbox-context.tsx';
import type { RailStage } from '../../unit/stages.ts';
import styles from './bench.module.css';
import { newId } from '../../api/new-id.ts';

interface Fields {
  readonly name: string;
  readonly kind?: string;
  readonly hazards?: Hazard[];
  readonly complaint?: string;
}

/** Why a unit is put on the bench: it decides what comes next. */
export type Why = 'new' | 'broken' | 'change';

const WHYS: Readonly<
  Record<Why, { readonly title: string; readonly steps: readonly string[]; readonly stage: RailStage }>
> = {
  new: { title: 'New unit', steps: [], stage: 'trace' },
  broken: {
    title: 'Something is broken',
    steps: [
      'Name it here, and write down what it does wrong.',
      'Intake has the checks that come before any screw.',
      'Type or propose its path in Trace: then Find asks one question at a time.',
    ],
    stage: 'intake',
  },
  change: {
    title: 'Something is to be changed',
    steps: [
      'Name it here.',
      'Type or paste its parts in Trace, a line each: it is drawn and computed as you type.',
      'Type the change in Rework: every number shows at once what it does.',
    ],
    stage: 'trace',
  },
};

/** As long as the complaint of Intake may be. */
const MOST_COMPLAINT = 5000;

/** Asks for what the tag says; the rest is typed at the bench. */
export function NewUnitDialog({ why, onClose }: { why: Why; onClose: () => void }) {
  const { title, steps, stage } = WHYS[why];
  const [form] = Form.useForm<Fields>();
  const outbox = useOutbox();
  const navigate = useNavigate();
  const submit = ({ complaint = '', ...fields }: Fields) => {
    const id = newId();
    const intake = complaint.trim() === '' ? {} : { words: complaint.trim() };
    const values = createUnitSchema.omit({ id: true }).parse({ ...fields, intake });
    void outbox.add(id, { type: 'create-unit', values, at: new Date().toISOString() });
    onClose();
    void navigate(`/units/${id}/${stage}`);
  };
  return (
    <Modal open title={title} okText="Put it on the bench" onCancel={onClose} onOk={() => form.submit()}>
      {steps.length > 0 && (
        <ol className={styles.nextSteps}>
          {steps.map((step) => (
            <li key={step}>{step}</li>
          ))}
        </ol>
      )}
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
