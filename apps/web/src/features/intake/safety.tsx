import {
  cautionsOf,
  dischargeOf,
  likelyStored,
  parseValue,
  type QuantityKind,
  type Stored,
} from '@zemble/core';
import { Input } from 'antd';
import { useState } from 'react';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { useIntake } from './use-intake.ts';
import styles from './intake.module.css';

/** Hazards with which charge stays in a unit that is off. */
const STORING = ['mains', 'switch-mode primary', 'valve high tension', 'large capacitors'];

/** The usual cautions for the unit's hazards, and how its capacitors are discharged. */
export function Safety() {
  const { unit } = useUnitContext();
  const cautions = cautionsOf(unit.hazards);
  const stores = unit.hazards.some((h) => STORING.includes(h));
  return (
    <section className="zb-block" aria-label="Before you open it">
      <h2>Before you open it</h2>
      {cautions.length === 0 ? (
        <p className="zb-dim">Say at the left what in it can hurt; the cautions for it stand here.</p>
      ) : (
        <ul className={styles.cautions}>
          {cautions.map((c) => (
            <li key={c}>{c}</li>
          ))}
        </ul>
      )}
      {stores && <Discharging />}
    </section>
  );
}

function Discharging() {
  const { intake, setIntake } = useIntake();
  const { unit, document } = useUnitContext();
  const likely = likelyStored(document.circuit, unit.hazards);
  const stored: Stored | undefined = intake.stored ?? likely[0];
  const others = likely.filter((s) => s !== stored && s.isCautious !== true);
  const set = (values: { farad?: number; volt?: number; ohm?: number }) => {
    const { farad = 100e-6, volt = 12, ohm } = stored ?? {};
    const next = { farad, volt, ...(ohm === undefined ? {} : { ohm }), ...values };
    setIntake({ stored: next });
  };
  return (
    <div className={styles.discharge}>
      <h3>
        Discharge{' '}
        {!intake.stored && likely.length > 0 && (
          <span className="zb-dim">as the circuit has it; type what yours has</span>
        )}
      </h3>
      <div className={styles.dischargeFields}>
        <Quantity
          label="Largest capacitor"
          kind="capacitor"
          value={stored?.farad}
          placeholder="100u"
          onKeep={(farad) => set({ farad })}
        />
        <Quantity
          label="Charged to"
          kind="voltage"
          value={stored?.volt}
          placeholder="325 V"
          onKeep={(volt) => set({ volt })}
        />
        <Quantity
          label="Through"
          kind="resistor"
          value={stored?.ohm}
          placeholder="chosen"
          onKeep={(ohm) => set({ ohm })}
        />
      </div>
      <div role="status">
        {[...(stored ? [stored] : []), ...others].map((s, i) => (
          <p key={s.ref ?? i}>
            {s.ref !== undefined && `${[s.ref, ...(s.others ?? [])].join(' with ')}: `}
            <strong className="zb-number">{dischargeOf(s).sentence}</strong>
          </p>
        ))}
      </div>
    </div>
  );
}

interface QuantityProps {
  readonly label: string;
  readonly kind: QuantityKind;
  readonly value: number | undefined;
  readonly placeholder: string;
  readonly onKeep: (value: number) => void;
}

function Quantity({ label, kind, value, placeholder, onKeep }: QuantityProps) {
  const [text, setText] = useState<string | null>(null);
  const parsed = text === null || text.trim() === '' ? null : parseValue(text, { kind, purpose: 'reading' });
  const isBad = parsed !== null && (!parsed.ok || !(parsed.readings[0].value > 0));
  const keep = () => {
    if (parsed?.ok && !isBad) onKeep(parsed.readings[0].value);
    if (!isBad) setText(null);
  };
  return (
    <label>
      <span className="zb-field-label">{label}</span>
      <Input
        value={text ?? (value === undefined ? '' : shown(value, kind))}
        placeholder={placeholder}
        status={isBad ? 'error' : ''}
        onChange={(e) => setText(e.target.value)}
        onBlur={keep}
        onPressEnter={keep}
      />
    </label>
  );
}

function shown(value: number, kind: QuantityKind): string {
  if (kind === 'capacitor')
    return value >= 1e-6
      ? `${Number((value * 1e6).toPrecision(4))}u`
      : `${Number((value * 1e9).toPrecision(4))}n`;
  return String(Number(value.toPrecision(4)));
}
