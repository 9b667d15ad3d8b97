export { SlateScreen } from './SlateScreen.tsx';
