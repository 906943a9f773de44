export { MODELS, modelNamed, modelParameters, type Model } from './library.ts';
