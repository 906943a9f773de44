import { unitAct } from '../../api/unit-act.ts';
import type { Layer } from '@zemble/contract';
import {
  flagsFor,
  formatQuantity,
  judgeReading,
  judgeVoltage,
  movedPlaces,
  drawnCircuit,
  seenParts,
  symbolText,
  symbolTextRoom,
  type Circuit,
  type Figure,
  type Part,
  type Point,
  type SeenPart,
  type UnitDocument,
} from '@zemble/core';
import { Button, Switch } from 'antd';
import {
  memo,
  useCallback,
  useDeferredValue,
  useEffect,
  useMemo,
  useRef,
  useState,
  type ReactNode,
} from 'react';
import { useLayer } from '../../unit/layer.tsx';
import { useAnalysed } from '../../unit/analysed.tsx';
import { useSelection } from '../../unit/selection.tsx';
import { useTrial } from '../../unit/trial.tsx';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { LayerWord, verdictTone } from '../../ui/marks.tsx';
import type { Emphasis } from '../../ui/schematic/symbol-mark.tsx';
import { OffersStrip } from '../changes/index.ts';
import { DrawingFrame } from './drawing-frame.tsx';
import { FiguresButton, FiguresOfPart, useFigures, type Figures } from './figures.tsx';
import { Pins } from './pins.tsx';
import { AreaBoundary } from '../../ui/area-boundary.tsx';
import { useDrawing } from './use-drawing.ts';
import { useIsLate } from './use-is-late.ts';
import styles from './circuit.module.css';

/** The circuit at the right of every stage: values and voltages of the layer shown, drifted and changed parts heavier. */
export function CircuitPanel({
  title = 'Circuit',
  measured,
  shown: asMetered,
  switcher,
  hasOffers = true,
}: {
  title?: string;
  /** Direct voltages that were measured, by net: they stand beside the computed ones, the wrong ones marked. */
  measured?: ReadonlyMap<string, number>;
  /** What a voltmeter would show by net, where that stands beside what was measured. */
  shown?: ReadonlyMap<string, number>;
  /** Stands in place of the title, to see something else here. */
  switcher?: ReactNode;
  /** What can be done with what is chosen stands at its foot. */
  hasOffers?: boolean;
}) {
  const { unit, change } = useUnitContext();
  // Numbers are answered first; the drawing follows a moment later.
  const document = useDeferredValue(useTrial().tried);
  const { selectedRef, selectedNet, selectRef, selectNet } = useDeferredValue(useSelection());
  const analysis = useDeferredValue(useAnalysed().analysis);
  const { layer } = useLayer();
  const [showsVolts, setShowsVolts] = useState(true);
  const seen = useMemo(() => seenParts(document.circuit, layer), [document.circuit, layer]);
  const drawn = useSharedParts(useMemo(() => drawnCircuit(document.circuit, seen), [document.circuit, seen]));
  const { drawing, isPending, why, drawAnew } = useDrawing(drawn, document.readouts, unit);
  const isLate = useIsLate(isPending);
  const figures = useFigures(drawing?.figures ?? NO_FIGURES);
  const parts = useMemo(() => new Map(drawn.parts.map((p) => [p.ref, p])), [drawn]);
  const texts = useMemo(
    () => new Map(seen.map(({ part }) => [part.ref, symbolText(part, part.value)])),
    [seen],
  );
  const emphasis = useMemo(() => emphasisOf(document, seen, layer), [document, seen, layer]);
  const gone = useMemo(
    () => new Set(seen.flatMap((s) => (s.fate === 'removed' ? [s.part.ref] : []))),
    [seen],
  );
  const computed = analysis?.layers[layer].volts ?? null;
  const volts = useMemo(
    () => (asMetered && asMetered.size > 0 ? Object.fromEntries(asMetered) : computed),
    [asMetered, computed],
  );
  const flags = useMemo(() => {
    if (!showsVolts || !volts || !drawing) return [];
    const references = drawing.marks.filter((m) => m.kind === 'reference');
    const nets = [...new Set([...drawing.wires, ...references].map((w) => w.net))];
    const flagTexts = nets.flatMap((net): [string, string][] => {
      const [volt, seen] = [volts[net], measured?.get(net)];
      if (volt === undefined || (seen === undefined && Math.abs(volt) < HARDLY_V)) return [];
      const is = seen === undefined ? '' : `, is ${formatQuantity(seen, 'V', { digits: 3 })}`;
      return [[net, `${formatQuantity(volt, 'V', { digits: 3 })}${is}`]];
    });
    return flagsFor(drawing, new Map(flagTexts));
  }, [showsVolts, volts, drawing, measured]);
  const flagTones = useMemo(
    () =>
      new Map(
        [...(measured ?? [])].flatMap(([net, seen]) => {
          const volt = volts?.[net];
          return volt === undefined ? [] : [[net, judgeVoltage(seen, volt).kind] as const];
        }),
      ),
    [measured, volts],
  );
  const { nudges } = unit;
  const latest = useRef(unit);
  useEffect(() => {
    latest.current = unit;
  });
  const { together } = figures;
  const move = useCallback(
    (ref: string, to: Point) => {
      const moved = drawing ? movedPlaces(drawing, ref, to, together) : { [ref]: to };
      change(unitAct(latest.current, { nudges: { ...nudges, ...moved } }));
    },
    [change, nudges, drawing, together],
  );
  const reason = analysis?.layers[layer].reason;
  return (
    <section className="zb-panel zb-circuit" aria-label={title}>
      <PanelHead
        title={title}
        switcher={switcher}
        layer={layer}
        isLate={isLate}
        why={why}
        figures={figures}
        onDrawAnew={drawAnew}
        showsVolts={showsVolts}
        onVolts={setShowsVolts}
      />
      {reason && drawn.parts.length > 0 && <p className="zb-caution">{reason}</p>}
      {drawn.parts.length === 0 ? (
        <p className="zb-empty-words">The circuit draws itself here as you type its parts.</p>
      ) : (
        drawing && (
          <AreaBoundary name="The drawing" resetKey={drawing}>
            <DrawingFrame
              drawing={drawing}
              parts={parts}
              texts={texts}
              flags={flags}
              flagTones={flagTones}
              emphasis={emphasis}
              gone={gone}
              together={figures.together}
              selectedRef={selectedRef}
              selectedNet={selectedNet}
              onSelectRef={selectRef}
              onSelectNet={selectNet}
              onMove={move}
            />
          </AreaBoundary>
        )
      )}
      {hasOffers && (
        <OffersStrip>
          <Pins />
          <FiguresOfPart refName={selectedRef} figures={figures} />
        </OffersStrip>
      )}
    </section>
  );
}

/** The same circuit with the parts of the one before where they are equal, so that only symbols that change are drawn. */
function useSharedParts(circuit: Circuit): Circuit {
  const [share] = useState(() => {
    let known = new Map<string, { readonly text: string; readonly part: Part }>();
    return (next: Circuit): Circuit => {
      const made = new Map(
        next.parts.map((part) => {
          // What is printed beside a symbol is told apart; the drawing leaves room for it.
          const room = symbolTextRoom(part, part.marked ?? null).length;
          const text = JSON.stringify({ ...part, marked: room });
          const before = known.get(part.ref);
          return [part.ref, before?.text === text ? before : { text, part }] as const;
        }),
      );
      known = made;
      return { ...next, parts: [...made.values()].map((m) => m.part) };
    };
  });
  return useMemo(() => share(circuit), [share, circuit]);
}

interface PanelHeadProps {
  readonly title: string;
  readonly switcher: ReactNode;
  readonly layer: Layer;
  /** A new drawing is long in coming. */
  readonly isLate: boolean;
  /** Why the circuit of now could not be drawn. */
  readonly why: string | null;
  readonly figures: Figures;
  readonly onDrawAnew: () => void;
  readonly showsVolts: boolean;
  readonly onVolts: (shows: boolean) => void;
}

const PanelHead = memo(function PanelHead(props: PanelHeadProps) {
  const { title, switcher, layer, isLate, why, figures, onDrawAnew, showsVolts, onVolts } = props;
  return (
    <header className="zb-panel-head">
      {switcher || <h2>{title}</h2>}
      <span className="zb-dim zb-nowrap">
        values and volts for <LayerWord layer={layer} />
      </span>
      <span className="zb-grow" />
      <span className="zb-dim" role="status">
        {why !== null ? `not drawn, of an earlier state: ${why}` : isLate && 'drawing…'}
      </span>
      <FiguresButton figures={figures} />
      <Button
        type="text"
        onClick={onDrawAnew}
        title="Lay the circuit out from the beginning; symbols you moved stay"
      >
        Draw anew
      </Button>
      <label className={styles.switch}>
        <Switch size="small" checked={showsVolts} onChange={onVolts} aria-label="Show direct voltages" />{' '}
        volts
      </label>
    </header>
  );
});

const NO_FIGURES: readonly Figure[] = [];

/** Voltages below this are not worth a flag, V. */
const HARDLY_V = 1e-3;

/** What stands out on a layer: what its changes made other than it was, and what was found to be out. */
function emphasisOf(
  { circuit }: UnitDocument,
  seen: readonly SeenPart[],
  layer: Layer,
): ReadonlyMap<string, Emphasis> {
  const found = new Map<string, Emphasis>();
  const came = new Map(circuit.parts.map((p) => [p.ref, p]));
  for (const { part, from, fate } of seen) {
    if (fate && layer !== 'marked') found.set(part.ref, layer);
    else if (from === 'proven') found.set(part.ref, from);
    else if (from === 'found' && part.value !== null) {
      const reading = { value: part.value, condition: 'leg lifted' } as const;
      const tone = verdictTone(judgeReading(came.get(part.ref)!, reading).kind);
      if (tone === 'out' || tone === 'edge') found.set(part.ref, tone);
    }
  }
  return found;
}
