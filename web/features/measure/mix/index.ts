export { MixScreen } from './MixScreen.tsx';
