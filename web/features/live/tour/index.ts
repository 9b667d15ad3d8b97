export { TourLine } from './TourLine.tsx';
export { useStartTour } from './useStartTour.ts';
