import { Modal } from 'antd';
import { useState, type ReactNode } from 'react';
import styles from './people.module.css';
import { SignIn } from './sign-in.tsx';
import { useSession } from '../api/use-session.ts';

/**
 * Asks who it is where the bench asks for names. Somebody who is signed out at work is asked on top of the page, so that
 * what stands in its fields stays. While the server is away nobody is asked: what is kept here can be worked with.
 */
export function SessionGate({ children }: { children: ReactNode }) {
  const session = useSession();
  const isOut = session?.state === 'first' || session?.state === 'signed-out';
  const [wasIn, setWasIn] = useState(false);
  if (session && !isOut && !wasIn) setWasIn(true);
  if (!isOut) return children;
  if (wasIn)
    return (
      <>
        {children}
        <Modal open title="Signed out" footer={null} closable={false}>
          <p>What you entered is kept on this device, and is sent when you are signed in again.</p>
          <SignIn state="signed-out" />
        </Modal>
      </>
    );
  return (
    <main className={`zb-empty ${styles.signIn}`}>
      <span className="zb-word-mark">Zemble</span>
      {session.state === 'signed-out' && (
        <>
          <h1>Who is at the bench?</h1>
          <SignIn state="signed-out" />
        </>
      )}
      {session.state === 'first' &&
        (session.mayBegin ? (
          <>
            <h1>First at this bench</h1>
            <p>
              Other machines reach this bench now, so everybody who works at it has a name and a passphrase.
              You are the first, and can add the others.
            </p>
            <SignIn state="first" />
          </>
        ) : (
          <>
            <h1>Nobody is known here yet</h1>
            <p>
              The first person begins on the machine of the bench itself: open the page there, under
              localhost, and come back.
            </p>
          </>
        ))}
    </main>
  );
}
