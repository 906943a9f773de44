import type { ReadoutKind, ReadoutResource, UnitFileReadout } from '@halfsplit/contract';
import {
  CURVES,
  formatWant,
  netsOf,
  parseValue,
  parseWant,
  READOUTS,
  unitOf,
  type Readout,
} from '@halfsplit/core';
import { Button, Form, Input, Modal, Select } from 'antd';
import { newKey } from '../../api/client.ts';
import { useUnitContext } from '../../app/unit-context.tsx';

const WORDS: Partial<Record<ReadoutKind, string>> = {
  gain: 'Gain at a frequency',
  corner: 'Bass or treble corner',
  voltage: 'Direct voltage at a net',
  current: 'Direct current in a part',
  dissipation: 'Heat in a part',
  inputImpedance: 'Input impedance',
  outputImpedance: 'Output impedance',
  curveError: 'Error against a published curve',
};

type Field = 'from' | 'to' | 'net' | 'part' | 'source' | 'frequencyHz' | 'side' | 'curve';
const FIELDS: Partial<Record<ReadoutKind, readonly Field[]>> = {
  gain: ['from', 'to', 'frequencyHz'],
  corner: ['from', 'to', 'side'],
  voltage: ['net'],
  current: ['part'],
  dissipation: ['part'],
  inputImpedance: ['source', 'frequencyHz'],
  outputImpedance: ['net', 'frequencyHz'],
  curveError: ['from', 'to', 'curve', 'frequencyHz'],
};

const LABELS: Record<Field, string> = {
  from: 'From net',
  to: 'To net',
  net: 'Net',
  part: 'Part',
  source: 'Source',
  frequencyHz: 'At frequency',
  side: 'Side',
  curve: 'Curve',
};

interface Values extends Partial<Record<Field, string>> {
  readonly kind: ReadoutKind;
  readonly name?: string;
  readonly want?: string;
}

/** Defines a readout: what it reads, between which nets, and what is wanted of it. */
export function ReadoutDialog({ edited, onClose }: { edited: ReadoutResource | null; onClose: () => void }) {
  const { unit, document, change } = useUnitContext();
  const [form] = Form.useForm<Values>();
  const kind = Form.useWatch('kind', form) ?? edited?.readout.kind ?? 'gain';
  const nets = netsOf(document.circuit).map((net) => ({ value: net }));
  const refs = document.circuit.parts.map((p) => ({ value: p.ref }));
  const sources = document.circuit.parts
    .filter((p) => p.kind === 'signal' || p.kind === 'supply')
    .map((p) => ({ value: p.ref }));
  const options: Partial<Record<Field, { value: string; label?: string }[]>> = {
    from: nets,
    to: nets,
    net: nets,
    part: refs,
    source: sources,
    side: [
      { value: 'low', label: 'bass' },
      { value: 'high', label: 'treble' },
    ],
    curve: Object.keys(CURVES).map((value) => ({ value })),
  };
  const submit = (values: Values) => {
    const type = READOUTS[values.kind]!;
    const fields = Object.fromEntries(
      (FIELDS[values.kind] ?? []).map((f) => [f, f === 'frequencyHz' ? frequencyOf(values[f]) : values[f]]),
    );
    const want = parseWant(values.want ?? '', type.quantity);
    const draft = {
      id:
        edited?.readout.id ??
        newId(
          values.kind,
          unit.readouts.map((r) => r.readout.id),
        ),
      name: '',
      kind: values.kind,
      ...fields,
      want,
    };
    const name = values.name?.trim() || `${WORDS[values.kind]}: ${type.describe(draft as Readout)}`;
    const readout = { ...draft, name } as UnitFileReadout;
    change(
      edited
        ? { type: 'update-readout', readoutId: edited.id, seen: edited.version, readout }
        : { type: 'add-readout', tempId: newKey(), readout },
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
      <Form<Values> form={form} layout="vertical" onFinish={submit} initialValues={initialValues(edited)}>
        <Form.Item name="kind" label="What it reads">
          <Select options={Object.entries(WORDS).map(([value, label]) => ({ value, label }))} />
        </Form.Item>
        <div className="hs-fields">
          {(FIELDS[kind] ?? []).map((field) => (
            <Form.Item
              key={field}
              name={field}
              label={LABELS[field]}
              rules={[
                { required: true, message: `${LABELS[field]} is missing.` },
                ...(field === 'frequencyHz' ? [{ validator: checkFrequency }] : []),
              ]}
            >
              {field === 'frequencyHz' ? (
                <Input placeholder="1 kHz" />
              ) : (
                <Select showSearch options={options[field] ?? []} />
              )}
            </Form.Item>
          ))}
        </div>
        <Form.Item
          name="want"
          label="Wanted"
          extra="38 ± 1 dB, < 20 Hz, 8 .. 12 V; empty when any value will do"
          rules={[{ validator: (_, text: string | undefined) => checkWant(text, kind) }]}
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

const frequencyOf = (text: string | undefined): number | undefined => {
  const parsed = parseValue(text ?? '', { kind: 'frequency', purpose: 'reading' });
  return parsed.ok ? parsed.readings[0].value : undefined;
};

async function checkFrequency(_: unknown, text: string | undefined): Promise<void> {
  const value = frequencyOf(text);
  if (text && !(value !== undefined && value > 0))
    throw new Error(`"${text}" is not a frequency; write it like 1k or 440 Hz.`);
}

async function checkWant(text: string | undefined, kind: ReadoutKind): Promise<void> {
  const quantity = READOUTS[kind].quantity ?? 'number';
  if (text && parseWant(text, quantity) === undefined)
    throw new Error(`"${text}" cannot be read as a wanted range.`);
}

function initialValues(edited: ReadoutResource | null): Values {
  if (!edited) return { kind: 'gain', frequencyHz: '1k', curve: 'disc-replay', side: 'low' };
  const readout = edited.readout as unknown as Readout;
  const fields = Object.fromEntries(
    (FIELDS[readout.kind] ?? []).map((f) => [f, readout[f] === undefined ? undefined : String(readout[f])]),
  );
  return {
    kind: readout.kind,
    name: readout.name,
    want: formatWant(readout.want, unitOf(readout)),
    ...fields,
  };
}

function newId(kind: string, taken: readonly string[]): string {
  for (let n = 1; ; n += 1) if (!taken.includes(`${kind}${n}`)) return `${kind}${n}`;
}
