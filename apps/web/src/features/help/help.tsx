import { Drawer } from 'antd';
import { useEffect, useState } from 'react';
import { useLocation } from 'react-router';
import { Keys } from '../../ui/keys.tsx';
import { GLOSSARY, type Word } from './glossary.ts';
import { EVERYWHERE, IN_A_UNIT, HELP_PAGES, type HelpId } from './pages.ts';
import { onHelpOpen } from '../../ui/help-state.ts';
import styles from './help.module.css';

/** The screen that an address shows. */
export function helpIdAt(path: string): HelpId {
  const last = path.split('/').filter(Boolean).at(-1);
  return last !== undefined && Object.hasOwn(HELP_PAGES, last) ? (last as HelpId) : 'bench';
}

/** A question mark that is typed where it can mean nothing else: outside of fields, or in one that is empty. */
function isAsked({ key, target, ctrlKey, metaKey, altKey }: KeyboardEvent): boolean {
  if (key === 'F1') return true;
  if (key !== '?' || ctrlKey || metaKey || altKey) return false;
  if (target instanceof HTMLTextAreaElement) return false;
  return !(target instanceof HTMLInputElement) || target.value === '';
}

/** What the screen is for, what is done there, its keys and its words: by ?, F1 and the button in the header. */
export function Help() {
  const [isOpen, setIsOpen] = useState(false);
  /** The word that was asked for. */
  const [asked, setAsked] = useState<Word | null>(null);
  const { pathname } = useLocation();
  const id = helpIdAt(pathname);
  const page = HELP_PAGES[id];
  useEffect(
    () =>
      onHelpOpen((word) => {
        setAsked(word !== undefined && Object.hasOwn(GLOSSARY, word) ? (word as Word) : null);
        setIsOpen(true);
      }),
    [],
  );
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (!isAsked(event)) return;
      event.preventDefault();
      setAsked(null);
      setIsOpen((open) => !open);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
  const isOfUnit = pathname.startsWith('/units/');
  const others = (Object.keys(GLOSSARY) as Word[]).filter((w) => !page.words.includes(w)).sort();
  return (
    <Drawer
      open={isOpen}
      onClose={() => setIsOpen(false)}
      title={page.title}
      size={420}
      destroyOnHidden
      aria-label={`Help: ${page.title}`}
    >
      {asked && <Words words={[asked]} />}
      <p className={asked ? styles.heading : styles.purpose}>{page.purpose}</p>
      <ol className={styles.steps}>
        {page.steps.map((step) => (
          <li key={step}>{step}</li>
        ))}
      </ol>
      <h3 className={styles.heading}>Keys</h3>
      <ul className={styles.keys}>
        {[...page.keys, ...(isOfUnit ? IN_A_UNIT : []), ...EVERYWHERE].map(([keys, does]) => (
          <li key={keys}>
            <span>
              <Keys keys={keys} />
            </span>
            <span>{does}</span>
          </li>
        ))}
      </ul>
      <h3 className={styles.heading}>Words</h3>
      <Words words={page.words} />
      <details className={styles.heading}>
        <summary>All other words</summary>
        <Words words={others} />
      </details>
    </Drawer>
  );
}

function Words({ words }: { words: readonly Word[] }) {
  return (
    <dl className={styles.words}>
      {words.map((word) => (
        <div key={word}>
          <dt>{word}</dt>
          <dd>{GLOSSARY[word]}</dd>
        </div>
      ))}
    </dl>
  );
}
