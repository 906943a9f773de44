export { isSolderSide, ontoPhoto, type BoardPhoto } from './other-side.ts';
export { outlineSpots, tappedPins } from './outline-spots.ts';
export { padPlan, type PadPlan } from './pads.ts';
export { inFractions, inPixels, similarity, type PhotoPlace, type Pixel } from './pixels.ts';
