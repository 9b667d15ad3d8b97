export { MomentNote } from './MomentNote.tsx';
