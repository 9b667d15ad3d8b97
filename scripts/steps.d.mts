export function ensureBuilt(options?: { quiet?: boolean }): void;
