import { Input } from '@chakra-ui/react';
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
  /** Endings and kinds, as the browser's own window lists them; any where absent. */
  readonly accept?: string;
  /** One is chosen, or several. */
  readonly onFile?: (file: File) => void;
  readonly onFiles?: OnFiles;
}

/** The browser's own window for choosing files; a button beside it opens it. The same file can be chosen again. */
export function FileInput({ chooser, label, accept, onFile, onFiles }: Props) {
  return (
    <Input
      ref={chooser}
      type="file"
      {...(accept && { accept })}
      multiple={onFiles !== undefined}
      hidden
      aria-label={label}
      onChange={(e) => {
        const files = [...(e.target.files ?? [])];
        e.target.value = '';
        const [first] = files;
        if (!first) return;
        onFile?.(first);
        onFiles?.(files);
      }}
    />
  );
}
