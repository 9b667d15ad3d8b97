export { TypeEditor } from './TypeEditor.tsx';
