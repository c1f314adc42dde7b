export { failureMessage, setsApi } from './api';
export { FirstPage } from './FirstPage';
export { SetListView } from './SetListView';
