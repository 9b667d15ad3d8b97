export { WireScreen } from './WireScreen.tsx';
