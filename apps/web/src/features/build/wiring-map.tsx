import type { Wire } from '@zemble/contract';
import {
  keyOfEnd,
  netOfWire,
  nextColour,
  writeEnd,
  type LayerCircuit,
  type ReadWire,
  type WiringReport,
} from '@zemble/core';
import { Button } from 'antd';
import { useMemo, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { svgPoint } from '../../ui/svg-point.ts';
import { useSelection } from '../../unit/selection.tsx';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { Palette, Place, WireLine } from './wiring-figure.tsx';
import { placeAt, wirePath, wiringPlan, type Spot, type WirePlace } from './wiring-plan.ts';
import styles from './wiring.module.css';

interface Props {
  readonly report: WiringReport;
  readonly circuit: LayerCircuit;
  readonly onAdd: (wire: Omit<Wire, 'id'>) => void;
  readonly onChange: (wire: Wire) => void;
  readonly onRemove: (id: string) => void;
}

/** A wire that is being drawn: from a place, or an end of a wire that is there. */
interface Pull {
  readonly start: WirePlace;
  /** The wire whose end is moved, and the place of its other end. */
  readonly moving?: { readonly wire: Wire; readonly end: 'from' | 'to'; readonly stays: WirePlace };
  readonly at: Spot;
}

/**
 * Every part off the board as its lugs are seen from behind, the board in the middle, each wire in its colour. Two places
 * that are tapped one after the other, or drawn together, have a wire; an end of the chosen wire is drawn elsewhere.
 */
export function WiringMap({ report, circuit, onAdd, onChange, onRemove }: Props) {
  const { unit } = useUnitContext();
  const { selectedNet, selectNet, selectRef } = useSelection();
  const plan = useMemo(() => wiringPlan(circuit, report.wires, unit.boards), [circuit, report, unit.boards]);
  const svg = useRef<SVGSVGElement | null>(null);
  const [colour, setColour] = useState<string | null>(null);
  const [startKey, setStartKey] = useState<string | null>(null);
  const [chosenId, setChosenId] = useState<string | null>(null);
  const [pull, setPull] = useState<Pull | null>(null);
  const byKey = new Map(plan.places.map((p) => [p.key, p]));
  const start = startKey === null ? undefined : byKey.get(startKey);
  const chosen = report.wires.find((w) => w.wire.id === chosenId);

  const drawn = report.wires.flatMap((read) => {
    const [a, b] = read.ends.map((e) => byKey.get(keyOfEnd(e)));
    return a && b && a !== b ? [{ read, path: wirePath(a, b) }] : [];
  });

  const choose = (read: ReadWire | null) => {
    setChosenId(read?.wire.id ?? null);
    setStartKey(null);
    if (read) selectNet(netOfWire(read) ?? null);
  };
  const join = (a: WirePlace, b: WirePlace) => {
    setStartKey(null);
    const [from, to] = [writeEnd(a.end), writeEnd(b.end)];
    const by = colour ?? nextColour([a.end, b.end], report.wires, circuit);
    onAdd({ ...(by === undefined ? {} : { colour: by }), from, to });
  };
  const tap = (place: WirePlace) => {
    setChosenId(null);
    selectNet(place.net ?? null);
    if (start && start.key !== place.key) return join(start, place);
    setStartKey(start ? null : place.key);
  };
  const press = (event: PointerEvent, place: WirePlace) => {
    if (event.button !== 0) return;
    event.stopPropagation();
    svg.current?.setPointerCapture(event.pointerId);
    setPull({ start: place, at: svgPoint(svg.current!, event), ...movingFrom(place) });
  };
  const movingFrom = ({ key }: WirePlace): Pick<Pull, 'moving'> => {
    const at = chosen?.ends.findIndex((e) => keyOfEnd(e) === key) ?? -1;
    const stays = chosen && byKey.get(keyOfEnd(chosen.ends[1 - at] ?? chosen.ends[0]));
    return chosen && stays && at >= 0
      ? { moving: { wire: chosen.wire, end: at === 0 ? 'from' : 'to', stays } }
      : {};
  };
  const release = (event: PointerEvent) => {
    if (!pull) return;
    const target = placeAt(plan, svgPoint(svg.current!, event));
    setPull(null);
    if (!target) return;
    if (target.key === pull.start.key) return tap(target);
    const { moving } = pull;
    if (!moving) return join(pull.start, target);
    if (target.key !== moving.stays.key) onChange({ ...moving.wire, [moving.end]: writeEnd(target.end) });
  };
  const onKey = (event: KeyboardEvent) => {
    if (event.key === 'Escape') {
      choose(null);
      setPull(null);
    } else if (event.key === 'Delete' && chosen) remove(chosen.wire.id);
  };
  const remove = (id: string) => {
    choose(null);
    onRemove(id);
  };
  const paint = (next: string | null) => {
    if (!chosen) return setColour(next);
    const { colour: _was, ...wire } = chosen.wire;
    const others = report.wires.filter((w) => w !== chosen);
    const by = next ?? nextColour(chosen.ends, others, circuit);
    onChange(by === undefined ? wire : { ...wire, colour: by });
  };
  const painted = chosen ? (chosen.wire.colour ?? null) : colour;
  const fixed = pull?.moving?.stays ?? pull?.start;
  return (
    <section className="zb-panel zb-on-paper" aria-label="Wiring map" onKeyDown={onKey}>
      <header className="zb-panel-head">
        <h2>From behind, as the iron sees it</h2>
        <span className="zb-grow" />
        <Palette colour={painted} onPaint={paint} />
      </header>
      {plan.cards.length === 0 ? (
        <p className="zb-empty-words">
          Parts that are wired by hand are drawn here with their lugs: controls, jacks, supplies, and any
          other part once a wire is typed that reaches it.
        </p>
      ) : (
        <>
          <p className={styles.saying} role="status">
            {chosen ? (
              <>
                <span>
                  {chosen.wire.colour ?? 'Wire'} {chosen.wire.id}, {writeEnd(chosen.ends[0])} to{' '}
                  {writeEnd(chosen.ends[1])}: draw an end elsewhere, or give it another colour.
                </span>
                <Button size="small" onClick={() => remove(chosen.wire.id)}>
                  Take it out
                </Button>
              </>
            ) : start ? (
              `From ${writeEnd(start.end)}${start.net === undefined ? '' : `, on ${start.net}`}: tap where its wire goes.`
            ) : (
              'Tap two places, or draw from one to the other: they get a wire.'
            )}
          </p>
          <div className="zb-scroll" tabIndex={0} role="group" aria-label="Wiring map, scrolls">
            <svg
              ref={svg}
              viewBox={`0 0 ${plan.width} ${plan.height}`}
              className={styles.map}
              role="group"
              aria-label="Lugs and wires"
              tabIndex={-1}
              onMouseDown={(event) => {
                // Drawing marks no text; keys still come here.
                event.preventDefault();
                svg.current?.focus({ preventScroll: true });
              }}
              onPointerMove={(event) => pull && setPull({ ...pull, at: svgPoint(svg.current!, event) })}
              onPointerUp={release}
              onPointerCancel={() => setPull(null)}
            >
              <rect
                x={plan.board.x}
                y={plan.board.y}
                width={plan.board.wide}
                height={plan.board.high}
                rx={4}
                className={styles.board}
              />
              <text x={plan.board.x + 10} y={plan.board.y + 18} className={styles.cardName}>
                board
              </text>
              {plan.cards.map(({ part, x, y, isWired }) => (
                <g key={part.ref} onClick={() => selectRef(part.ref)}>
                  <rect
                    x={x}
                    y={y}
                    width={plan.card.wide}
                    height={plan.card.high}
                    rx={6}
                    className={styles.card}
                  />
                  <text x={x + 10} y={y + 17} className={styles.cardName}>
                    {part.ref}
                  </text>
                  {!isWired && (
                    <text
                      x={x + plan.card.wide - 10}
                      y={y + 17}
                      textAnchor="end"
                      className={styles.colourName}
                    >
                      no wire yet
                    </text>
                  )}
                </g>
              ))}
              {drawn.map(({ read, path }) => (
                <WireLine
                  key={read.wire.id}
                  read={read}
                  path={path}
                  look={
                    read === chosen
                      ? 'chosen'
                      : selectedNet !== null && netOfWire(read) === selectedNet
                        ? 'lit'
                        : 'edge'
                  }
                  onChoose={() => choose(read)}
                />
              ))}
              {drawn.map(({ read, path }) => (
                <text
                  key={read.wire.id}
                  {...path.label}
                  textAnchor="middle"
                  className={styles.colourName}
                  onClick={() => choose(read)}
                >
                  {read.wire.colour ?? ''}
                </text>
              ))}
              {pull && fixed && (
                <line
                  x1={fixed.spots[0]!.x}
                  y1={fixed.spots[0]!.y}
                  x2={pull.at.x}
                  y2={pull.at.y}
                  className={styles.pull}
                />
              )}
              {plan.places.map((place) => (
                <Place
                  key={place.key}
                  place={place}
                  isFrom={place.key === startKey}
                  isGoal={start !== undefined && start.key !== place.key && place.net === start.net}
                  isEnd={chosen?.ends.some((e) => keyOfEnd(e) === place.key) === true}
                  onPress={press}
                  onTap={tap}
                />
              ))}
            </svg>
          </div>
        </>
      )}
    </section>
  );
}
