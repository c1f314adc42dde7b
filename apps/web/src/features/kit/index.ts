export { kitApi } from './api';
export { EntryPicture } from './EntryPicture';
export { KitEntryItem, KitReading } from './KitEntryItem';
export { KitView } from './KitView';
export { searchKit } from './search';
export { equipmentOf, type NamedEquipment, useEquipment } from './useEquipment';
export { useJudgedBy } from './useJudgedBy';
export { useKitChanges } from './useKitChanges';
export { useKitMaterials } from './useKitMaterials';
