import { LAYERS, type Layer } from '@zemble/contract';
import { createContext, use, useMemo, useState, type ReactNode } from 'react';

interface LayerContext {
  readonly layer: Layer;
  readonly setLayer: (layer: Layer) => void;
}

const Context = createContext<LayerContext>({ layer: 'found', setLayer: () => {} });

/** The layer that drawings and voltages are shown on. */
export function LayerProvider({ children }: { children: ReactNode }) {
  const [layer, setLayer] = useState<Layer>('found');
  const value = useMemo(() => ({ layer, setLayer }), [layer]);
  return <Context value={value}>{children}</Context>;
}

export const useLayer = (): LayerContext => use(Context);
export const LAYER_LIST = LAYERS;
