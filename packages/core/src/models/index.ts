export { MODELS, modelNamed, modelParameters, withOwnModel, type Model } from './library.ts';
export { modelFromText, type OwnModelResult } from './own-model.ts';
