export { figuresOf, type Figure } from './figures.ts';
export { classifyNets, type NetClass } from './rails.ts';
