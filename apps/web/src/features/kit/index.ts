export { kitApi } from './api';
export { KitView } from './KitView';
export { searchKit } from './search';
export { type NamedEquipment, useEquipment } from './useEquipment';
export { useKitChanges } from './useKitChanges';
