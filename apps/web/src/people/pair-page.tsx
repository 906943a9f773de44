import { Button, Spin } from 'antd';
import { useEffect, useRef, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { useSessionActions } from '../api/use-session.ts';

/** Lets this device in by the code in its address, once; the code leaves the address at once. */
export function PairPage() {
  const { enter } = useSessionActions();
  const navigate = useNavigate();
  const [failure, setFailure] = useState<string | null>(null);
  const isAsked = useRef(false);
  useEffect(() => {
    if (isAsked.current) return;
    isAsked.current = true;
    const code = location.hash.slice(1);
    history.replaceState(null, '', '/pair');
    enter('/pairings/redeem', { code }).then(
      () => void navigate('/', { replace: true }),
      (error: Error) => setFailure(error.message),
    );
  });
  return (
    <main className="zb-empty">
      {failure === null ? (
        <>
          <Spin />
          <p>Letting this device in</p>
        </>
      ) : (
        <>
          <h1>This device was not let in</h1>
          <p role="alert">{failure}</p>
          <Link to="/">
            <Button type="primary">Sign in with a name</Button>
          </Link>
        </>
      )}
    </main>
  );
}
