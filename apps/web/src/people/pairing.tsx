import { pairingSchema, type Pairing } from '@zemble/contract';
import { Alert, Button, Select } from 'antd';
import { toDataURL } from 'qrcode';
import { useEffect, useState } from 'react';
import { ask } from '../api/client.ts';
import styles from './people.module.css';

const SECOND_MS = 1000;

/** A QR code that lets a phone in: shown here, read there, used once. */
export function PairDevice({ addresses }: { addresses: readonly string[] }) {
  const [pairing, setPairing] = useState<Pairing | null>(null);
  const [failure, setFailure] = useState<string | null>(null);
  const isLoopback = ['localhost', '127.0.0.1', '[::1]'].includes(location.hostname);
  const choices = isLoopback
    ? addresses
    : [location.origin, ...addresses.filter((a) => a !== location.origin)];
  const [address, setAddress] = useState(choices[0]);
  const secondsLeft = useSecondsUntil(pairing?.expiresAt ?? null);
  const link = pairing && address !== undefined && secondsLeft > 0 ? `${address}/pair#${pairing.code}` : null;
  const picture = useQrCode(link);
  const show = () =>
    ask('POST', '/pairings', pairingSchema, {}).then(setPairing, (error: Error) => setFailure(error.message));
  if (address === undefined)
    return <p className="zb-dim">This machine is on no network, so that no phone can reach it.</p>;
  return (
    <section className={styles.pair} aria-label="Pair a phone">
      {choices.length > 1 && (
        <label>
          <span className="zb-dim">The phone reaches this bench at</span>{' '}
          <Select
            value={address}
            onChange={setAddress}
            options={choices.map((value) => ({ value }))}
            aria-label="Address of this bench"
          />
        </label>
      )}
      {picture && link ? (
        <>
          <img src={picture} alt="QR code that lets a phone in" width={220} height={220} />
          <p>
            Point the phone’s camera at it. It works once, for {secondsLeft} s more.{' '}
            <a href={link} className="zb-mono">
              {address}/pair
            </a>
          </p>
        </>
      ) : (
        <Button onClick={() => void show()}>{pairing ? 'Show a new code' : 'Show the code'}</Button>
      )}
      {failure !== null && <Alert type="error" title={failure} />}
    </section>
  );
}

/** Seconds until a time, counted down; 0 without one, and when it is over. */
function useSecondsUntil(time: string | null): number {
  const [now, setNow] = useState(Date.now);
  useEffect(() => {
    if (time === null) return;
    const timer = setInterval(() => setNow(Date.now()), SECOND_MS);
    return () => clearInterval(timer);
  }, [time]);
  return time === null ? 0 : Math.max(0, Math.ceil((Date.parse(time) - now) / SECOND_MS));
}

/** Some text as the picture of a QR code (ISO/IEC 18004), dark on light in any mode. */
function useQrCode(text: string | null): string | null {
  const [made, setMade] = useState<{ readonly text: string; readonly url: string } | null>(null);
  useEffect(() => {
    if (text === null) return;
    let isCurrent = true;
    void toDataURL(text, { margin: 2, width: 440 }).then((url) => isCurrent && setMade({ text, url }));
    return () => {
      isCurrent = false;
    };
  }, [text]);
  return made !== null && made.text === text ? made.url : null;
}
