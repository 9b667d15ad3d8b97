export { PlanScreen } from './PlanScreen.tsx';
