export { Gate } from './Gate.tsx';
export { TapScreen } from './TapScreen.tsx';
export { TuneScreen, TuneStage } from './TuneScreen.tsx';
