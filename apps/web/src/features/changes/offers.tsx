import { changeOffers } from '@zemble/core';
import { Button } from 'antd';
import { useMemo, type ReactNode } from 'react';
import { useNavigate } from 'react-router';
import { useSelection } from '../../unit/selection.tsx';
import { useUnitContext } from '../../unit/unit-context.tsx';
import styles from './changes.module.css';

interface Props {
  readonly onOffer: (line: string) => void;
  /** What stands there while nothing is chosen. */
  readonly otherwise?: string;
}

/** What can be done with what is chosen: each begins the line of a change. */
export function Offers({ onOffer, otherwise }: Props) {
  const { document } = useUnitContext();
  const { selectedRef, selectedNet } = useSelection();
  const offers = useMemo(
    () => changeOffers(document.circuit, { ref: selectedRef, net: selectedNet }),
    [document.circuit, selectedRef, selectedNet],
  );
  if (offers.length === 0)
    return otherwise === undefined ? null : <span className="zb-dim">{otherwise}</span>;
  return (
    <>
      <span className="zb-ref">{selectedRef ?? selectedNet}</span>
      {offers.map(({ words, line }) => (
        <Button key={words} size="small" onClick={() => onOffer(line)}>
          {words}
        </Button>
      ))}
    </>
  );
}

/** Hands a line over to the field for changes of this unit. */
export function useHandLine(): (line: string) => void {
  const navigate = useNavigate();
  const { unit } = useUnitContext();
  return (line) => void navigate(`/units/${unit.id}/rework`, { state: { line } });
}

/** The same beside a drawing, a list or a sheet: what is chosen leads to the field for changes with the line begun. */
export function OffersStrip({ children }: { readonly children?: ReactNode }) {
  const hand = useHandLine();
  return (
    <div className={styles.strip} role="group" aria-label="What can be done there">
      <Offers onOffer={hand} />
      {children}
    </div>
  );
}
