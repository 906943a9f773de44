export {
  hasModelParameter,
  isPType,
  MODELS,
  modelNamed,
  modelParameters,
  polarityOf,
  unknownModel,
  type Model,
} from './library.ts';
export { regulatorType, type RegulatorType } from './regulators.ts';
export { TYPE_SPREAD } from './type-spread.ts';
export { modelFromText, type OwnModelResult } from './own-model.ts';
