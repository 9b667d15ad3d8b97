/** What workers can do with files of the origin private file system: the types of a page leave it out. */
interface FileSystemSyncAccessHandle {
  write(bytes: ArrayBufferView<ArrayBuffer>, options?: { at?: number }): number;
  flush(): void;
  close(): void;
}
interface FileSystemFileHandle {
  createSyncAccessHandle(): Promise<FileSystemSyncAccessHandle>;
  move(name: string): Promise<void>;
}
