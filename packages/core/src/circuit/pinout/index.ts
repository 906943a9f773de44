export { dualSpot, fitDual, turned, type DualFit } from './dual.ts';
export { findPin, type FoundPin, type Pinned } from './find-pin.ts';
export {
  numberOfPin,
  pinByNumber,
  pinoutOf,
  pinWords,
  sharedPins,
  isOfPackage,
  unitOfPackage,
  usualSurroundings,
  type Packaged,
  type PartPinout,
} from './numbered.ts';
export { outlinePins, type OutlinePin, type PackagePins } from './outline-pins.ts';
export { arcDegrees, OUTLINES, outlineNamed, pinPlace, type Outline } from './outlines.ts';
export { PINOUTS, type Pinout, type PinoutVariant } from './pinouts.ts';
export { probePlace, probePlaces, type ProbePlace } from './probe.ts';
export { packageProblems, withSharedPins } from './shared.ts';
