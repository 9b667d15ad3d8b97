export { PathsScreen } from './PathsScreen.tsx';
