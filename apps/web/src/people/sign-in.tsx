import { SHORTEST_PASSPHRASE, type Session } from '@zemble/contract';
import { Button, Form, Input } from 'antd';
import { useState } from 'react';
import { useSessionActions } from '../api/use-session.ts';

interface Fields {
  readonly name: string;
  readonly passphrase: string;
}

/** Name and passphrase; the first person of a bench chooses both. */
export function SignIn({ state }: { state: Extract<Session['state'], 'first' | 'signed-out'> }) {
  const { enter } = useSessionActions();
  const [failure, setFailure] = useState<string | null>(null);
  const [isBusy, setIsBusy] = useState(false);
  const isFirst = state === 'first';
  const submit = async (fields: Fields) => {
    setIsBusy(true);
    setFailure(null);
    try {
      await enter(isFirst ? '/people/first' : '/session', fields);
    } catch (error) {
      setFailure((error as Error).message);
    } finally {
      setIsBusy(false);
    }
  };
  return (
    <Form<Fields> layout="vertical" onFinish={(fields) => void submit(fields)} requiredMark={false}>
      <Form.Item
        name="name"
        label="Name"
        rules={[{ required: true, whitespace: true, message: 'Who are you?' }]}
      >
        <Input autoFocus autoComplete="username" maxLength={60} />
      </Form.Item>
      <Form.Item
        name="passphrase"
        label="Passphrase"
        extra={isFirst ? `At least ${SHORTEST_PASSPHRASE} characters; a few words are best.` : undefined}
        rules={[
          { required: true, message: 'The passphrase is missing.' },
          ...(isFirst
            ? [{ min: SHORTEST_PASSPHRASE, message: `It has at least ${SHORTEST_PASSPHRASE} characters.` }]
            : []),
        ]}
      >
        <Input.Password autoComplete={isFirst ? 'new-password' : 'current-password'} maxLength={200} />
      </Form.Item>
      {failure !== null && (
        <p className="zb-caution" role="alert">
          {failure}
        </p>
      )}
      <Button type="primary" htmlType="submit" loading={isBusy}>
        {isFirst ? 'Begin' : 'Sign in'}
      </Button>
    </Form>
  );
}
