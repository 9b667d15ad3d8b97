export { ListenBar, ListenButton } from './ListenBar.tsx';
export { evenGain, type MakeContext, makePlayer, type Player, type Spot } from './player.ts';
