export { kitApi } from './api';
export { KitView } from './KitView';
export { searchKit } from './search';
export { freeId, useKitChanges } from './useKitChanges';
