export { EquipmentTable } from './EquipmentTable';
