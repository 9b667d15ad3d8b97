export { SearchDialog } from './SearchDialog.tsx';
