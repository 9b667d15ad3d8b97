export { WaysScreen } from './WaysScreen.tsx';
