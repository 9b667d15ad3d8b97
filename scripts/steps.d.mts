export function ensureBuilt(options?: { quiet?: boolean }): void;
export function ensureWasm(): void;
export const SOURCES: readonly string[];
