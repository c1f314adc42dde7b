export { planSvg } from './planSvg.js';
export { type Paper, type SetSheetParts, setSheetPdf } from './setSheetPdf.js';
