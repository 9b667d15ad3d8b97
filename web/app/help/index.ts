export { HelpDialog } from './HelpDialog.tsx';
