import { v4 } from 'uuid';

/** An id that no one else makes; also where a plain address of the local network withholds `crypto.randomUUID`. */
export const newId = (): string => v4();
