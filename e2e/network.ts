import { createServer, request } from 'node:http';
import type { AddressInfo } from 'node:net';
import { networkInterfaces } from 'node:os';
import type { BrowserContext, BrowserContextOptions, Page } from '@playwright/test';

interface Door {
  readonly url: string;
  readonly code: string;
}

/** How a phone of the tests reaches this machine, as it would on a local network. */
export interface Network {
  /** Where the door is and the code that opens it. @param desk  shows how to come in by a phone */
  door(desk: Page): Promise<Door>;
  /** How the server is started so that a phone of the tests finds it. */
  readonly lan: Record<string, string>;
  /** For the phone's own browser. */
  readonly options: BrowserContextOptions;
  close(): void;
}

const lanAddress = Object.values(networkInterfaces())
  .flat()
  .find((a) => a?.family === 'IPv4' && !a.internal)?.address;

/** By the address that the desk shows; where this machine is on no network, by one that stands in for it. */
export const makeNetwork = async (): Promise<Network> =>
  lanAddress === undefined
    ? standIn()
    : {
        door: (desk) => shownDoor(desk, lanAddress),
        lan: { MELLOW_LAN: '1', MELLOW_LAN_ADDRESS: lanAddress },
        options: {},
        close: () => {},
      };

async function shownDoor(desk: Page, address: string): Promise<Door> {
  const code = (await desk.getByTestId('door-code').textContent())!;
  const says = (await desk.getByLabel('On a phone').getByText(/http:/).first().textContent())!;
  const url = /http:\/\/[\d.]+:\d+\/hand/.exec(says)![0];
  if (!url.includes(address)) throw new Error(`The desk shows ${url}, and this machine is at ${address}.`);
  return { url, code };
}

/** Kept for documentation: no machine has it, and a browser takes it for a plain address. */
const NOBODYS = '198.51.100.7';
const PORTS_TRIED = 20;

/** A proxy carries what the phone asks of that address to the door on this machine, and nothing where that is away. */
async function standIn(): Promise<Network> {
  const proxy = createServer((asked, answer) => {
    const { port, pathname, search } = new URL(asked.url!);
    const own = (text: string | undefined) => text?.replace(NOBODYS, '127.0.0.1');
    const headers = { ...asked.headers, host: `127.0.0.1:${port}` };
    if (headers.origin) headers.origin = own(headers.origin);
    const on = request({ host: '127.0.0.1', port, path: pathname + search, method: asked.method, headers }, (got) => {
      answer.writeHead(got.statusCode!, got.headers);
      got.pipe(answer);
    });
    on.on('error', () => asked.socket.destroy());
    asked.pipe(on);
  });
  await new Promise<void>((resolve) => proxy.listen(0, '127.0.0.1', resolve));
  return {
    door: async (desk) => {
      const { code } = await (await desk.request.get(new URL('/api/door', desk.url()).href)).json();
      return { url: `http://${NOBODYS}:${await doorPort(desk.url())}/hand`, code };
    },
    lan: { MELLOW_LAN: '1', MELLOW_LAN_ADDRESS: '127.0.0.1' },
    options: { proxy: { server: `http://127.0.0.1:${(proxy.address() as AddressInfo).port}` } },
    close: () => {
      proxy.close();
      proxy.closeAllConnections();
    },
  };
}

/** The door is at the next port after the desk's that was free. */
async function doorPort(deskUrl: string): Promise<number> {
  const first = Number(new URL(deskUrl).port) + 1;
  for (let port = first; port < first + PORTS_TRIED; port++) {
    const there = await fetch(`http://127.0.0.1:${port}/hand`).catch(() => null);
    if (there?.ok) return port;
  }
  throw new Error('The door for phones is not open.');
}

/** A phone that came in by its code, with a rig in the hand. @param desk  shows how to come in by a phone */
export async function rigOnPhone(
  desk: Page,
  network: Network,
  rig: string,
): Promise<{ phone: Page; hand: BrowserContext }> {
  const { url, code } = await network.door(desk);
  const browser = desk.context().browser()!;
  const hand = await browser.newContext({
    ...network.options,
    viewport: { width: 390, height: 780 },
    hasTouch: true,
  });
  const phone = await hand.newPage();
  await phone.goto(`${url}#${code}`);
  await phone.getByRole('link', { name: rig, exact: true }).click();
  return { phone, hand };
}
