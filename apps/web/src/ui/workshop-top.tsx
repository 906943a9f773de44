import { NavLink } from 'react-router';
import { PersonButton } from '../people/person-button.tsx';
import { Saving } from '../saving/saving.tsx';
import { MainsChoice } from './mains-choice.tsx';
import { ModeButton } from './mode-button.tsx';
import { HelpButton } from './help-button.tsx';
import styles from './workshop-top.module.css';

/** The pages that belong to no unit. */
export const WORKSHOP_PAGES = [
  { path: '/', word: 'Bench' },
  { path: '/drawer', word: 'Drawer' },
  { path: '/desk', word: 'Desk' },
] as const;

/** The top bar of the pages that belong to no unit, with the way from one to the other. */
export function WorkshopTop() {
  return (
    <header className={`zb-top ${styles.top}`}>
      <span className="zb-word-mark">Zemble</span>
      <nav className={styles.pages} aria-label="Workshop">
        {WORKSHOP_PAGES.map(({ path, word }) => (
          <NavLink key={path} to={path} end className={styles.page}>
            {word}
          </NavLink>
        ))}
      </nav>
      <span className="zb-grow" />
      <MainsChoice />
      <PersonButton />
      <HelpButton />
      <ModeButton />
      <Saving />
    </header>
  );
}
