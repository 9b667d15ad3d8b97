export { type Budget, budgetsOf, type Gauge } from './budgets.ts';
export { answeredBy, checksOf, type DayCheck, readinessOf } from './checks.ts';
export { controlChart } from './control-chart.ts';
export { DayEvent, type EventOf, type ListId, MAX_EVENTS } from './journal.ts';
export { markersIn, markersToCsv, markersToVtt } from './markers.ts';
export { type Occasion, orderUp } from './order.ts';
export { orderDown } from './order-down.ts';
export { figuresOfPrint, type Print, type PrintDifference, printBefore, sameAs } from './same.ts';
export { type DayFigure, figuresSince, type Series, seriesOf } from './series.ts';
export {
  faultsBefore,
  lastGood,
  openSession,
  type Session,
  sessionsOf,
  type Tick,
  type Ticks,
} from './session.ts';
export { CAUTIONS, type Caution, type Step } from './step.ts';
export { changedSince, listOfDay, nextOfToday, stepsUp, todayOf, unchangedSince } from './today.ts';
