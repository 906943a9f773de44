import { lazy, Suspense, useState, type ReactNode } from 'react';
import { useSession } from '../api/use-session.ts';

const SignInPage = lazy(() => import('./sign-in-page.tsx').then((m) => ({ default: m.SignInPage })));
const SignedOutDialog = lazy(() =>
  import('./signed-out-dialog.tsx').then((m) => ({ default: m.SignedOutDialog })),
);

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
        <Suspense fallback={null}>
          <SignedOutDialog />
        </Suspense>
      </>
    );
  return <SignInPage session={session} />;
}
