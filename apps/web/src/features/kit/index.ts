export { kitApi } from './api';
export { EntryPicture } from './EntryPicture';
export { KitView } from './KitView';
export { searchKit } from './search';
export { equipmentOf, type NamedEquipment, useEquipment } from './useEquipment';
export { useKitChanges } from './useKitChanges';
export { useKitMaterials } from './useKitMaterials';
