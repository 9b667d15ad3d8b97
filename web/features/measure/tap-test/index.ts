export { Gate } from './Gate.tsx';
export { TapTestScreen } from './TapTestScreen.tsx';
export { TuneScreen, TuneStage } from './TuneScreen.tsx';
