export { type Budget, budgetsOf, type Gauge } from './budgets.ts';
export { answeredBy, type CheckKind, checksOf, type DayCheck, type Readiness, readinessOf } from './checks.ts';
export { type ChartPoint, type ControlChart, controlChart } from './control-chart.ts';
export { DayEvent, type EventOf, LISTS, type ListId, MAX_EVENTS } from './journal.ts';
export { markersIn, markersToCsv, markersToVtt } from './markers.ts';
export { type Occasion, orderUp } from './order.ts';
export { orderDown } from './order-down.ts';
export { figuresOfPrint, type Print, type PrintDifference, printBefore, sameAs } from './same.ts';
export { type DayFigure, figuresSince, type Series, seriesOf } from './series.ts';
export {
  faultsBefore,
  lastGood,
  type Marker,
  openSession,
  type Session,
  sessionsOf,
  type Tick,
  type Ticks,
} from './session.ts';
export { CAUTIONS, type Caution, type Step, type StepKind } from './step.ts';
