export { type Chain, findChain, usualChain } from './chain.ts';
export {
  CONNECTORS,
  type Connector,
  type ConnectorFamily,
  connectorOf,
  PLUGS,
  type PlugId,
  UNPLUGGED,
} from './connectors.ts';
export { type Adapter, type Form, type Lead, PARTS, type Part } from './parts.ts';
