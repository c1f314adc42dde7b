export { planSvg } from './planSvg.js';
export { type Paper, plansPdf, type SetSheetParts, setSheetPdf } from './setSheetPdf.js';
