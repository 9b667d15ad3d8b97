import { type DragEvent, type RefObject, useState } from 'react';

type OnFiles = (files: File[]) => void;

/** Files dropped on a place: what the place listens to, and whether something is held over it. */
export function useFileDrop(onFiles: OnFiles) {
  const [over, setOver] = useState(false);
  return {
    over,
    target: {
      onDragOver: (e: DragEvent) => {
        e.preventDefault();
        setOver(true);
      },
      onDragLeave: () => setOver(false),
      onDrop: (e: DragEvent) => {
        e.preventDefault();
        setOver(false);
        onFiles([...e.dataTransfer.files]);
      },
    },
  };
}

interface Props {
  readonly chooser: RefObject<HTMLInputElement | null>;
  readonly label: string;
  /** Endings and kinds, as the browser's own window lists them. */
  readonly accept: string;
  readonly onFiles: OnFiles;
}

/** The browser's own window for choosing files; a button beside it opens it. The same file can be chosen again. */
export function FileInput({ chooser, label, accept, onFiles }: Props) {
  return (
    <input
      ref={chooser}
      type="file"
      accept={accept}
      multiple
      hidden
      aria-label={label}
      onChange={(e) => {
        const files = [...(e.target.files ?? [])];
        e.target.value = '';
        if (files.length > 0) onFiles(files);
      }}
    />
  );
}
