import { UserOutlined } from '@ant-design/icons';
import { Button } from 'antd';
import { lazy, Suspense, useState } from 'react';
import { useSession } from '../api/use-session.ts';

const PeopleDrawer = lazy(() => import('./people-drawer.tsx').then((m) => ({ default: m.PeopleDrawer })));

/** Who is signed in on this device, and the way to everything about people; nothing where nobody is asked for a name. */
export function PersonButton() {
  const session = useSession();
  const [isOpen, setIsOpen] = useState(false);
  if (session?.state !== 'signed-in') return null;
  return (
    <>
      <Button type="text" icon={<UserOutlined />} onClick={() => setIsOpen(true)}>
        {session.person.name}
      </Button>
      {isOpen && (
        <Suspense fallback={null}>
          <PeopleDrawer session={session} isOpen onClose={() => setIsOpen(false)} />
        </Suspense>
      )}
    </>
  );
}
