import type { Session } from '@zemble/contract';
import styles from './people.module.css';
import { SignIn } from './sign-in.tsx';

/** The page that stands before the bench until somebody is signed in. */
export function SignInPage({ session }: { session: Session }) {
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
