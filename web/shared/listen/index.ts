export { evenGains } from './even.ts';
export { type LiveInput, openInput } from './input.ts';
export { LevelSlider } from './LevelSlider.tsx';
export { ListenBar, ListenButton, useListenKey } from './ListenBar.tsx';
export { type OpenPieces, openPieces } from './pieces.ts';

export { type ReceivedPath, SwitchBar } from './SwitchBar.tsx';
