import type { Temporary, Part } from '@zemble/core';
import { StillOut } from './still-out.tsx';

/** After a reading with a leg lifted: one key puts the leg, or the fuse that is read out of its holder, on the ledger. */
export function LegOut({ part }: { part: Part }) {
  const [pin] = Object.keys(part.pins);
  if (pin === undefined) return null;
  const made: Temporary =
    part.kind === 'fuse'
      ? { name: `${part.ref} taken out`, steps: [{ do: 'remove', ref: part.ref }] }
      : { name: `${part.ref} read by itself`, steps: [{ do: 'lift', pin: `${part.ref}.${pin}` }] };
  return <StillOut made={made} words={part.kind === 'fuse' ? 'it is still out' : 'its leg is still out'} />;
}
