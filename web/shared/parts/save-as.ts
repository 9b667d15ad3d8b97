import { parts as say } from '#words/index.ts';
import { announce } from './announce.ts';

/** Hands a text to the browser as a file to keep. */
export const saveAs = (name: string, text: string, type: string): void => saveBlob(name, new Blob([text], { type }));

/** The same of bytes that are a file already; it is said. */
export function saveBlob(name: string, blob: Blob): void {
  const url = URL.createObjectURL(blob);
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  URL.revokeObjectURL(url);
  announce('good', say.savedAs({ name }));
}
