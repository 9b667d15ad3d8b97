export { TapTestScreen } from './TapTestScreen.tsx';
export { TuneScreen, TuneStage } from './TuneScreen.tsx';
