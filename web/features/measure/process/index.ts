export { ProcessScreen } from './ProcessScreen.tsx';
