import type { ReadoutKind, ReadoutResource, UnitFileReadout } from '@halfsplit/contract';
import {
  CURVES,
  formatWant,
  netsOf,
  parseValue,
  parseWant,
  READOUTS,
  unitOf,
  WEIGHTINGS,
  type QuantityKind,
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
  noise: 'Noise over the audio band',
  thd: 'Distortion at a level',
  headroom: 'Headroom before it distorts',
  rate: 'Rate of an oscillation',
  period: 'Period of an oscillation',
  delay: 'Delay after switch-on',
  separation: 'Separation of two channels',
  thump: 'Thump at switch-on',
  ripple: 'Supply ripple that gets through',
  range: 'Range over a potentiometer',
  stability: 'Stability: damping of what rings most',
};

type Field =
  | 'from'
  | 'to'
  | 'net'
  | 'part'
  | 'source'
  | 'frequencyHz'
  | 'side'
  | 'curve'
  | 'out'
  | 'weighting'
  | 'levelV'
  | 'thresholdV'
  | 'wanted'
  | 'leak'
  | 'sourceV'
  | 'of';
const FIELDS: Partial<Record<ReadoutKind, readonly Field[]>> = {
  gain: ['from', 'to', 'frequencyHz'],
  corner: ['from', 'to', 'side'],
  voltage: ['net'],
  current: ['part'],
  dissipation: ['part'],
  inputImpedance: ['source', 'frequencyHz'],
  outputImpedance: ['net', 'frequencyHz'],
  curveError: ['from', 'to', 'curve', 'frequencyHz'],
  noise: ['out', 'weighting'],
  thd: ['source', 'out', 'frequencyHz', 'levelV'],
  headroom: ['source', 'out', 'frequencyHz'],
  rate: ['net'],
  period: ['net'],
  delay: ['net', 'thresholdV'],
  separation: ['from', 'wanted', 'leak', 'frequencyHz'],
  thump: ['net'],
  ripple: ['net', 'frequencyHz', 'sourceV'],
  range: ['of', 'part'],
  stability: [],
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
  out: 'At net',
  weighting: 'Weighting',
  levelV: 'Level, peak',
  thresholdV: 'Threshold',
  wanted: 'Wanted at net',
  leak: 'Leaks to net',
  sourceV: 'Ripple on the supply',
  of: 'Of the readout',
};

/** Fields that are typed as a value rather than chosen, and what they are of. */
const TYPED: Partial<Record<Field, QuantityKind>> = {
  frequencyHz: 'frequency',
  levelV: 'voltage',
  thresholdV: 'voltage',
  sourceV: 'voltage',
};
const EXAMPLES: Partial<Record<Field, string>> = {
  frequencyHz: '1 kHz',
  levelV: '100 mV',
  thresholdV: '4.5 V',
  sourceV: '10 mV',
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
    out: nets,
    wanted: nets,
    leak: nets,
    weighting: WEIGHTINGS.map((value) => ({ value })),
    of: document.readouts.filter((r) => r.kind !== 'range').map((r) => ({ value: r.id, label: r.name })),
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
      (FIELDS[values.kind] ?? []).map((f) => [f, TYPED[f] ? numberOf(values[f], TYPED[f]) : values[f]]),
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
                ...(TYPED[field] ? [{ validator: checkTyped(TYPED[field]) }] : []),
              ]}
            >
              {TYPED[field] ? (
                <Input placeholder={EXAMPLES[field]} />
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

function numberOf(text: string | undefined, kind: QuantityKind): number | undefined {
  const parsed = parseValue(text ?? '', { kind, purpose: 'reading' });
  return parsed.ok ? parsed.readings[0].value : undefined;
}

const checkTyped =
  (kind: QuantityKind) =>
  async (_: unknown, text: string | undefined): Promise<void> => {
    const value = numberOf(text, kind);
    if (text && !(value !== undefined && value > 0))
      throw new Error(
        `"${text}" cannot be read here; write it like ${kind === 'frequency' ? '440 Hz' : '100 mV'}.`,
      );
  };

async function checkWant(text: string | undefined, kind: ReadoutKind): Promise<void> {
  const quantity = READOUTS[kind].quantity ?? 'number';
  if (text && parseWant(text, quantity) === undefined)
    throw new Error(`"${text}" cannot be read as a wanted range.`);
}

function initialValues(edited: ReadoutResource | null): Values {
  if (!edited)
    return {
      kind: 'gain',
      frequencyHz: '1k',
      curve: 'disc-replay',
      side: 'low',
      weighting: 'A',
      levelV: '100 mV',
      sourceV: '10 mV',
    };
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
