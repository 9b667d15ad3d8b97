export { FirstDeskScreen } from './FirstDeskScreen.tsx';
