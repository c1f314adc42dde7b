export { RoomView } from './RoomView';
