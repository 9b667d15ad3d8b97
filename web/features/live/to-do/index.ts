export { ToDoScreen } from './ToDoScreen.tsx';
