export { FindDialog } from './FindDialog.tsx';
