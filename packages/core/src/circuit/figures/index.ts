export { figuresOf, type Figure } from './figures.ts';
export { drawnClasses } from './references.ts';
export { classifyNets, type NetClass } from './rails.ts';
