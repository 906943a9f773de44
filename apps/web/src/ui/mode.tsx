import { createContext, use, useLayoutEffect, useMemo, useState, type ReactNode } from 'react';
import { ConfigProvider } from 'antd';
import { NoticesProvider } from './notices.tsx';
import { antdTheme, cssVariables, type Mode } from './theme.ts';

interface ModeContext {
  readonly mode: Mode;
  readonly toggle: () => void;
}

const Context = createContext<ModeContext>({ mode: 'paper', toggle: () => {} });
const STORAGE_KEY = 'zemble.mode';

const firstMode = (): Mode => {
  const kept = localStorage.getItem(STORAGE_KEY);
  if (kept === 'paper' || kept === 'dim') return kept;
  return matchMedia('(prefers-color-scheme: dark)').matches ? 'dim' : 'paper';
};

/** Paper or dim bench, kept in this browser, for our own styles and the component library alike. */
export function ModeProvider({ children }: { children: ReactNode }) {
  const [mode, setMode] = useState(firstMode);
  useLayoutEffect(() => {
    const paint = (as: Mode) => {
      for (const [name, value] of Object.entries(cssVariables(as)))
        document.documentElement.style.setProperty(name, value);
    };
    // On paper everything is ink on paper.
    const onPaper = () => paint('paper');
    const onScreen = () => paint(mode);
    onScreen();
    document.documentElement.dataset.mode = mode;
    localStorage.setItem(STORAGE_KEY, mode);
    window.addEventListener('beforeprint', onPaper);
    window.addEventListener('afterprint', onScreen);
    return () => {
      window.removeEventListener('beforeprint', onPaper);
      window.removeEventListener('afterprint', onScreen);
    };
  }, [mode]);
  const value = useMemo(
    () => ({ mode, toggle: () => setMode((m) => (m === 'paper' ? 'dim' : 'paper')) }),
    [mode],
  );
  return (
    <Context value={value}>
      <ConfigProvider theme={antdTheme(mode)} componentSize="small">
        <NoticesProvider>{children}</NoticesProvider>
      </ConfigProvider>
    </Context>
  );
}

export const useMode = (): ModeContext => use(Context);
