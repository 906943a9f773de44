export { ChangesPanel } from './changes-panel.tsx';
export { ControlsPanel } from './controls-panel.tsx';
export { LegOut } from './leg-out.tsx';
export { LedgerButton } from './ledger.tsx';
export { OffersStrip } from './offers.tsx';
export { useChangeActions } from './use-changes.ts';
