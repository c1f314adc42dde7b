export { productCautionWords, setCautionWords } from './cautions.js';
export { changeWords, describeChange } from './changes.js';
export { progressWords, questionWords } from './jobs.js';
export { standInWords } from './kit.js';
export { proposedSteps } from './preparation.js';
export { viewReasonWords } from './views.js';
