import { SHORTEST_PASSPHRASE, peopleSchema, personSchema, type Session } from '@zemble/contract';
import { Button, Drawer, Form, Input, Popconfirm } from 'antd';
import { useState } from 'react';
import useSWR from 'swr';
import { z } from 'zod';
import { useNotices } from '../ui/notices.tsx';
import { useOutboxState } from '../api/outbox-context.tsx';
import { ask } from '../api/client.ts';
import styles from './people.module.css';
import { PairDevice } from './pairing.tsx';
import { useSessionActions } from '../api/use-session.ts';

const done = z.object({ ok: z.literal(true) });
const LONG_ENOUGH = {
  required: true,
  min: SHORTEST_PASSPHRASE,
  message: `At least ${SHORTEST_PASSPHRASE} characters.`,
};

type SignedIn = Extract<Session, { state: 'signed-in' }>;

/** The person signed in here: devices, passphrase, and for the owner everybody else. */
export function PeopleDrawer({
  session,
  isOpen,
  onClose,
}: {
  session: SignedIn;
  isOpen: boolean;
  onClose: () => void;
}) {
  const { person, addresses } = session;
  const { leave } = useSessionActions();
  const { pending } = useOutboxState();
  const warning =
    pending.length > 0
      ? `${pending.length} entries are not on the server yet; they stay on this device and are sent by whoever signs in next.`
      : undefined;
  return (
    <Drawer open={isOpen} onClose={onClose} title={`${person.name} at the bench`} size="large">
      <div className={styles.people}>
        <h2>Pair a phone</h2>
        <PairDevice addresses={addresses} />
        <h2>Passphrase</h2>
        <NewPassphrase personId={person.id} />
        <h2>People</h2>
        <PeopleList self={person} />
        <h2>Sign out</h2>
        <p className="zb-answers">
          <Popconfirm title="Sign out here?" description={warning} onConfirm={() => void leave(false)}>
            <Button>On this device</Button>
          </Popconfirm>
          <Popconfirm
            title="Sign out on every device?"
            description={warning ?? 'Whoever has a device of yours is signed out with it.'}
            onConfirm={() => void leave(true)}
          >
            <Button danger>Everywhere</Button>
          </Popconfirm>
        </p>
      </div>
    </Drawer>
  );
}

function useTelling() {
  const notices = useNotices();
  return (work: Promise<unknown>, title: string) =>
    work.then(
      () => notices.success({ title }),
      (error: Error) => notices.error({ title: error.message, duration: 0 }),
    );
}

function NewPassphrase({ personId }: { personId: string }) {
  const [form] = Form.useForm<{ current: string; passphrase: string }>();
  const tell = useTelling();
  const set = (values: { current: string; passphrase: string }) =>
    tell(
      ask('POST', `/people/${personId}/passphrase`, done, values).then(() => form.resetFields()),
      'The passphrase is set; other devices are signed out.',
    );
  return (
    <Form form={form} layout="inline" onFinish={(values) => void set(values)}>
      <Form.Item name="current" rules={[{ required: true, message: 'The one so far.' }]}>
        <Input.Password placeholder="so far" aria-label="Passphrase so far" autoComplete="current-password" />
      </Form.Item>
      <Form.Item name="passphrase" rules={[LONG_ENOUGH]}>
        <Input.Password placeholder="new" aria-label="New passphrase" autoComplete="new-password" />
      </Form.Item>
      <Button htmlType="submit">Set anew</Button>
    </Form>
  );
}

function PeopleList({ self }: { self: SignedIn['person'] }) {
  const { data, mutate } = useSWR('people', () => ask('GET', '/people', peopleSchema));
  const [form] = Form.useForm<{ name: string; passphrase: string }>();
  const tell = useTelling();
  const add = (values: { name: string; passphrase: string }) =>
    tell(
      ask('POST', '/people', personSchema, values).then(() => {
        form.resetFields();
        return mutate();
      }),
      `${values.name} can sign in now.`,
    );
  const remove = (id: string, name: string) =>
    tell(
      ask('POST', `/people/${id}/remove`, done, {}).then(() => mutate()),
      `${name} is signed out and removed.`,
    );
  return (
    <>
      <ul className={styles.list}>
        {(data?.people ?? []).map(({ id, name, isOwner }) => (
          <li key={id}>
            <strong>{name}</strong> {isOwner && <span className="zb-dim">owns the bench</span>}
            {id === self.id && <span className="zb-dim">you</span>}
            {self.isOwner && id !== self.id && (
              <>
                <SetForOther id={id} name={name} />
                <Popconfirm
                  title={`Remove ${name}?`}
                  description="What they did stays in the log, under their name."
                  onConfirm={() => void remove(id, name)}
                >
                  <Button size="small" type="text" danger>
                    Remove
                  </Button>
                </Popconfirm>
              </>
            )}
          </li>
        ))}
      </ul>
      {self.isOwner && (
        <Form form={form} layout="inline" onFinish={(values) => void add(values)}>
          <Form.Item name="name" rules={[{ required: true, whitespace: true, message: 'A name.' }]}>
            <Input placeholder="name" aria-label="Name of the new person" maxLength={60} autoComplete="off" />
          </Form.Item>
          <Form.Item name="passphrase" rules={[LONG_ENOUGH]}>
            <Input.Password
              placeholder="first passphrase"
              aria-label="First passphrase of the new person"
              autoComplete="new-password"
            />
          </Form.Item>
          <Button htmlType="submit">Add a person</Button>
        </Form>
      )}
    </>
  );
}

/** A forgotten passphrase is set anew by the owner. */
function SetForOther({ id, name }: { id: string; name: string }) {
  const [passphrase, setPassphrase] = useState('');
  const tell = useTelling();
  return (
    <Popconfirm
      title={`A new passphrase for ${name}`}
      description={
        <Input.Password
          value={passphrase}
          onChange={(event) => setPassphrase(event.target.value)}
          aria-label={`New passphrase for ${name}`}
          autoComplete="new-password"
        />
      }
      okText="Set it"
      okButtonProps={{ disabled: passphrase.length < SHORTEST_PASSPHRASE }}
      onConfirm={() =>
        void tell(
          ask('POST', `/people/${id}/passphrase`, done, { passphrase }).then(() => setPassphrase('')),
          `${name} has a new passphrase, and is signed out everywhere.`,
        )
      }
    >
      <Button size="small" type="text">
        New passphrase
      </Button>
    </Popconfirm>
  );
}
