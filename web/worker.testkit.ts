import { expose } from 'comlink';
import { vi } from 'vitest';

/** Workers of the page, each in this thread, over a channel of its own; ends them with the test. */
export function stubWorker(api: object): void {
  vi.stubGlobal(
    'Worker',
    class {
      readonly #page: MessagePort;
      readonly #work: MessagePort;
      constructor() {
        const { port1, port2 } = new MessageChannel();
        this.#page = port1;
        this.#work = port2;
        expose(api, port2);
        port1.start();
      }
      addEventListener(...args: Parameters<MessagePort['addEventListener']>) {
        this.#page.addEventListener(...args);
      }
      removeEventListener(...args: Parameters<MessagePort['removeEventListener']>) {
        this.#page.removeEventListener(...args);
      }
      postMessage(message: unknown, transfer: Transferable[] = []) {
        this.#page.postMessage(message, transfer);
      }
      terminate() {
        this.#page.close();
        this.#work.close();
      }
    },
  );
}
