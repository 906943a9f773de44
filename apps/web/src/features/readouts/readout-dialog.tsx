import {
  READOUT_KINDS,
  readoutDefinitionOf,
  type Field,
  type ReadoutKind,
  type ReadoutResource,
} from '@zemble/contract';
import { Button, Checkbox, Form, Input, Modal, Select } from 'antd';
import { newId } from '../../api/new-id.ts';
import { useUnitContext } from '../../unit/unit-context.tsx';
import {
  choicesFor,
  draftOf,
  initialValues,
  newReadoutId,
  typedProblem,
  usualValues,
  wantProblem,
  type FormValues,
} from './readout-form.ts';

/** Defines a readout: what it reads, between which nets, and what is wanted of it. Its fields are those of its kind. */
export function ReadoutDialog({ edited, onClose }: { edited: ReadoutResource | null; onClose: () => void }) {
  const { unit, document, change } = useUnitContext();
  const [form] = Form.useForm<FormValues>();
  const kind: ReadoutKind = Form.useWatch('kind', form) ?? edited?.readout.kind ?? 'gain';
  const before = edited ? (document.readouts.find((r) => r.id === edited.readout.id) ?? null) : null;
  const submit = (values: FormValues) => {
    const taken = unit.readouts.map((r) => r.readout.id);
    const id = edited?.readout.id ?? newReadoutId(values.kind, taken);
    const { readout, problems } = draftOf(values, id, document);
    if (problems[0]) {
      form.setFields([{ name: 'name', errors: [problems[0].message] }]);
      return;
    }
    change(
      edited
        ? { type: 'update-readout', readoutId: edited.id, seen: edited.version, readout }
        : { type: 'add-readout', id: newId(), readout },
    );
    onClose();
  };
  return (
    <Modal
      open
      title={edited ? 'Change the readout' : 'New readout'}
      okText={edited ? 'Keep the change' : 'Add the readout'}
      onCancel={onClose}
      onOk={() => form.submit()}
      footer={(_, { OkBtn, CancelBtn }) => (
        <>
          {edited && (
            <Button
              danger
              onClick={() => {
                change({ type: 'remove-readout', readoutId: edited.id, seen: edited.version });
                onClose();
              }}
            >
              Remove it
            </Button>
          )}
          <CancelBtn />
          <OkBtn />
        </>
      )}
    >
      <Form<FormValues>
        form={form}
        layout="vertical"
        onFinish={submit}
        initialValues={initialValues(before, document)}
        onValuesChange={(changed: Partial<FormValues>) => {
          if (changed.kind)
            form.setFieldsValue(missingOf(usualValues(changed.kind), form.getFieldsValue(true)));
        }}
      >
        <Form.Item name="kind" label="What it reads">
          <Select
            options={READOUT_KINDS.map((value) => ({ value, label: readoutDefinitionOf(value).words }))}
          />
        </Form.Item>
        <div className="zb-fields">
          {Object.entries(readoutDefinitionOf(kind).fields).map(([name, field]) => (
            <FieldItem key={`${kind} ${name}`} name={name} field={field} />
          ))}
        </div>
        <Form.Item
          name="want"
          label="Wanted"
          extra="38 ± 1 dB, < 20 Hz, 8 .. 12 V, < 1 %; empty when any value will do"
          rules={[
            {
              validator: async (_, text: string | undefined) => {
                const why = text && wantProblem(text, form.getFieldsValue(true) as FormValues, document);
                if (why) throw new Error(why);
              },
            },
          ]}
        >
          <Input />
        </Form.Item>
        <Form.Item name="name" label="Name" extra="Left empty, it is named after what it reads">
          <Input maxLength={120} />
        </Form.Item>
      </Form>
    </Modal>
  );
}

/** Values that a form does not have yet. */
const missingOf = (usual: FormValues, has: Readonly<Record<string, unknown>>): Partial<FormValues> =>
  Object.fromEntries(
    Object.entries(usual).filter(([name]) => {
      const value = new Map(Object.entries(has)).get(name);
      return value === undefined || value === '';
    }),
  );

/** One field of a readout by what it holds: typed, chosen or ticked. */
function FieldItem({ name, field }: { name: string; field: Field }) {
  const { document } = useUnitContext();
  const needed = field.isNeeded === true;
  const rules = [{ required: needed, message: `${field.label} is missing.` }];
  const label = needed ? field.label : `${field.label} (may stay empty)`;
  if (field.type === 'flag')
    return (
      <Form.Item name={name} valuePropName="checked" initialValue={field.usual ?? false}>
        <Checkbox>{field.label}</Checkbox>
      </Form.Item>
    );
  if (field.type === 'quantity')
    return (
      <Form.Item
        name={name}
        label={label}
        rules={[
          ...rules,
          {
            validator: async (_, text: string | undefined) => {
              const why = text && typedProblem(field, text);
              if (why) throw new Error(why);
            },
          },
        ]}
      >
        <Input placeholder={field.example} />
      </Form.Item>
    );
  const options = choicesFor(field, document).map((choice) =>
    'options' in choice ? { ...choice, options: [...choice.options] } : choice,
  );
  return (
    <Form.Item name={name} label={label} rules={rules}>
      <Select
        showSearch
        allowClear={!needed}
        options={options}
        {...(field.type === 'settings' ? { mode: 'multiple' as const, maxCount: 2 } : {})}
      />
    </Form.Item>
  );
}
