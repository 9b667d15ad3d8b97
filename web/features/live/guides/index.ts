export { GuideScreen } from './GuideScreen.tsx';
