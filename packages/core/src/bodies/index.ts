export { bodyOf, PITCH_MM, type Body, type Mounting } from './body.ts';
export { circle, depthOfOverlap, rectangle, type PointMm, type Polygon } from './polygon.ts';
export { stanceOf, whyNotOn, type Stance } from './stance.ts';
