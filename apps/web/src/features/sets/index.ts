export { setsApi } from './api';
export { changedAt } from './changedAt';
export { FirstPage } from './FirstPage';
export { SetListView } from './SetListView';
export { SetThumbnail } from './SetThumbnail';
export { starterSet } from './starterSet';
export { DROP_WORDS, useReadSets } from './useReadSets';
