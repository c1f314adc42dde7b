export { KitTables } from './KitTables';
