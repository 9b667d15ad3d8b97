/** Hands a text to the browser as a file to keep. */
export const saveAs = (name: string, text: string, type: string): void => saveBlob(name, new Blob([text], { type }));

/** The same of bytes that are a file already. */
export function saveBlob(name: string, blob: Blob): void {
  const url = URL.createObjectURL(blob);
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  URL.revokeObjectURL(url);
}
