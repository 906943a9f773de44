import { Modal } from 'antd';
import { SignIn } from './sign-in.tsx';

/** Asks on top of the page who it is, for somebody who was signed out at work. */
export function SignedOutDialog() {
  return (
    <Modal open title="Signed out" footer={null} closable={false}>
      <p>What you entered is kept on this device, and is sent when you are signed in again.</p>
      <SignIn state="signed-out" />
    </Modal>
  );
}
