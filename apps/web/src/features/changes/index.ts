export { ChangesPanel } from './changes-panel.tsx';
export { ControlsPanel } from './controls-panel.tsx';
export { BothChannelsBox, useBothChannels } from './both-channels.tsx';
export { LegOut } from './leg-out.tsx';
export { LedgerButton } from './ledger.tsx';
export { OffersStrip } from './offers.tsx';
export { StillOut } from './still-out.tsx';
export { useChangeActions, useLedger, useMeasures } from './use-changes.ts';
