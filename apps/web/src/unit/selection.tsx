import type { PathData } from '@zemble/contract';
import { createContext, use, useCallback, useMemo, useState, type ReactNode } from 'react';

/** What is chosen, the same in every panel: only what shows it follows. */
export interface Selection {
  readonly selectedRef: string | null;
  readonly selectedNet: string | null;
  /** Test point of the path that is selected: the same in path, photo and search. */
  readonly selectedPoint: string | null;
  readonly selectRef: (ref: string | null) => void;
  readonly selectNet: (net: string | null) => void;
  readonly selectPoint: (id: string | null) => void;
}

const Context = createContext<Selection | null>(null);

/**
 * @param testPoints of the path: choosing one chooses its net too
 * @param isMeasuring a run begins with what has not been measured: what was chosen elsewhere is let go when it is turned to
 */
export function SelectionProvider({
  testPoints,
  isMeasuring,
  children,
}: {
  testPoints: PathData['testPoints'];
  isMeasuring: boolean;
  children: ReactNode;
}) {
  const [selectedRef, selectRef] = useState<string | null>(null);
  const [wasMeasuring, setWasMeasuring] = useState(isMeasuring);
  if (isMeasuring !== wasMeasuring) {
    setWasMeasuring(isMeasuring);
    if (isMeasuring) selectRef(null);
  }
  const [selectedNet, selectNet] = useState<string | null>(null);
  const [selectedPoint, setSelectedPoint] = useState<string | null>(null);
  const selectPoint = useCallback(
    (id: string | null) => {
      setSelectedPoint(id);
      const net = testPoints?.find((t) => t.id === id)?.net;
      if (net !== undefined) selectNet(net);
    },
    [testPoints],
  );
  const value = useMemo(
    (): Selection => ({ selectedRef, selectedNet, selectedPoint, selectRef, selectNet, selectPoint }),
    [selectedRef, selectedNet, selectedPoint, selectPoint],
  );
  return <Context value={value}>{children}</Context>;
}

export function useSelection(): Selection {
  const value = use(Context);
  if (!value) throw new Error('There is no unit around this component.');
  return value;
}
