export { MapPicture } from './map/index.ts';
export { useTypeItems } from './type-items.ts';
export { WireScreen } from './WireScreen.tsx';
