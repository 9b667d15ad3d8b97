export { Gate } from './Gate.tsx';
