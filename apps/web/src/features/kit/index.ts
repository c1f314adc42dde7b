export { kitApi } from './api';
export { KitView } from './KitView';
export { searchKit } from './search';
export { equipmentOf, type NamedEquipment, useEquipment } from './useEquipment';
export { useKitChanges } from './useKitChanges';
