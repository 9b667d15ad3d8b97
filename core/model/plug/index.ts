export { type Chain, findChain } from './chain.ts';
export {
  CONNECTORS,
  type Connector,
  type ConnectorKind,
  connectorOf,
  PLUGS,
  type PlugId,
  UNPLUGGED,
} from './connectors.ts';
export { type End, endOf, speakAlike } from './contacts.ts';
export { isTwoWired, type LeadFound, type LeadsFor, lastPlug, leadOf, leadsFor } from './lead-for.ts';
export { bringsPowerOnly, type Form, PARTS, type Part } from './parts.ts';
export { lostBy } from './say-lead.ts';
export type { Carried, Wiring } from './wiring.ts';
