import { createSocket } from 'node:dgram';
import { networkInterfaces } from 'node:os';
import { server as say } from '#words/index.ts';

/** Addresses of this computer on its local networks. */
const localAddresses = (): string[] =>
  Object.values(networkInterfaces())
    .flat()
    .flatMap((a) => (a && a.family === 'IPv4' && !a.internal ? [a.address] : []));

/** Kept for documentation (RFC 5737): no one has it, so that whatever leads there is the default way. */
const SOMEWHERE = '198.51.100.1';
const ANY_PORT = 9;

/** The address by which this computer would go out: that of the network it is on. Nothing is sent. Null without a way out. */
const defaultAddress = (): Promise<string | null> =>
  new Promise((resolve) => {
    const socket = createSocket('udp4');
    const end = (address: string | null): void => {
      socket.close();
      resolve(address);
    };
    socket.once('error', () => end(null));
    socket.connect(ANY_PORT, SOMEWHERE, () => end(socket.address().address));
  });

/**
 * The one address that phones are let in by: the one that was asked for, or that of the network with the default way, or
 * the only one there is. Null where this computer is on no network.
 * @throws Error where the address that was asked for is none of this computer's
 */
export async function phoneAddress(wanted: string | undefined): Promise<string | null> {
  const own = localAddresses();
  if (wanted) {
    if (own.includes(wanted) || wanted === '127.0.0.1') return wanted;
    throw new Error(say.isNoAddressThis({ wanted, addresses: own.length > 0 ? own.join(', ') : say.noneOnNetwork() }));
  }
  const byDefault = await defaultAddress();
  return byDefault !== null && own.includes(byDefault) ? byDefault : (own[0] ?? null);
}
