export { bodyOf, PITCH_MM, type Body, type Mounting } from './body.ts';
export { circle, depthOfOverlap, distanceApart, rectangle, type PointMm, type Polygon } from './polygon.ts';
export { stanceOf, whyNotOn, type Stance } from './stance.ts';
export { areInTheWay, bodiesMeet, boxesMeet, boxOf, type BoxMm, type Standing } from './in-the-way.ts';
export { capacitorCode, lookOf, type Look } from './look.ts';
