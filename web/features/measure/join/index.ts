export { JoinScreen } from './JoinScreen.tsx';
