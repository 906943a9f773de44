export { MODELS, modelNamed, modelParameters, withOwnModel, type Model } from './library.ts';
