import { Button } from 'antd';
import { useEffect, useState } from 'react';
import { registerSW } from 'virtual:pwa-register';
import { useOutboxState } from '../api/outbox-context.tsx';
import styles from './frame.module.css';

/** A page that stays open looks for a new version so often, ms. */
const LOOK_MS = 30 * 60_000;

/** Whether somebody is typing: what stands in a field is not taken from under the hand. */
function isTyping(): boolean {
  const field = document.activeElement;
  return (
    (field instanceof HTMLInputElement || field instanceof HTMLTextAreaElement) &&
    field.type !== 'radio' &&
    field.type !== 'checkbox' &&
    field.value !== ''
  );
}

/**
 * Says calmly that a new version of the page is here, and takes it when nothing is typed: at once when it is asked for, by itself
 * when the page is not looked at. What is entered and not yet sent is kept by the outbox and goes on in the new one.
 */
export function NewVersion() {
  const [take, setTake] = useState<(() => void) | null>(null);
  const { notKept, pending } = useOutboxState();
  // What the browser cannot keep would be lost with the page.
  const isSafe = notKept === null || pending.length === 0;
  useEffect(() => {
    const update = registerSW({
      onNeedRefresh: () =>
        setTake(() => () => {
          // By itself the library loads the page anew only where it was opened with the version before.
          const reload = () => location.reload();
          navigator.serviceWorker.addEventListener('controllerchange', reload, { once: true });
          void update(true);
        }),
      onRegisteredSW: (_, registration) => {
        if (registration) setInterval(() => void registration.update().catch(() => undefined), LOOK_MS);
      },
    });
  }, []);
  useEffect(() => {
    if (!take || !isSafe) return;
    const onHide = () => {
      if (document.visibilityState === 'hidden' && !isTyping()) take();
    };
    document.addEventListener('visibilitychange', onHide);
    return () => document.removeEventListener('visibilitychange', onHide);
  }, [take, isSafe]);
  if (!take) return null;
  return (
    <div className={styles.newVersion} role="status">
      A new version is here.{' '}
      <Button size="small" onClick={take} disabled={!isSafe}>
        Take it now
      </Button>
    </div>
  );
}
