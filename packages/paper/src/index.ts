export type { Paper } from './pages.js';
export { planSvg } from './planSvg.js';
export { plansPdf, type SetSheetParts, setSheetPdf } from './setSheetPdf.js';
export { WEDGE_TITLE, wedgePdf } from './wedgePdf.js';
