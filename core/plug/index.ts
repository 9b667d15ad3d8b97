export { type Chain, findChain, usualChain } from './chain.ts';
export {
  CONNECTORS,
  type Connector,
  type ConnectorKind,
  connectorOf,
  PLUGS,
  type PlugId,
  UNPLUGGED,
} from './connectors.ts';
export { type Adapter, type Form, type Lead, PARTS, type Part } from './parts.ts';
