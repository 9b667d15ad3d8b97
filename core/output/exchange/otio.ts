import { samplesFromMs } from '#core/model/units/index.ts';
import { leadInMs, type SlipItem, type SlipList, type SlipMarker, speedOf, startMs, tracksOf } from './slip-list.ts';

const time = (samples: number, rate: number) => ({ OTIO_SCHEMA: 'RationalTime.1', rate, value: samples });
const range = (start: number, samples: number, rate: number) => ({
  OTIO_SCHEMA: 'TimeRange.1',
  start_time: time(start, rate),
  duration: time(samples, rate),
});

/**
 * The list as a timeline in OpenTimelineIO's JSON: a track for each recording, a gap before it, its stretch as a linear
 * time warp. Times are samples of the recording's own rate, parts of a sample kept.
 */
export function slipListToOtio(list: SlipList): string {
  const children = tracksOf(list).map((items) => trackOf(list, items));
  const timeline = {
    OTIO_SCHEMA: 'Timeline.1',
    name: list.title,
    metadata: {},
    global_start_time: null,
    tracks: {
      OTIO_SCHEMA: 'Stack.1',
      name: 'tracks',
      metadata: {},
      source_range: null,
      effects: [],
      markers: (list.markers ?? []).map((m) => markerOf(list, m)),
      children,
    },
  };
  return `${JSON.stringify(timeline, null, 2)}\n`;
}

const MARKER_RATE = 48_000;

/** A marker is on the timeline, not on a track. */
const markerOf = (list: SlipList, { atMs, says }: SlipMarker) => ({
  OTIO_SCHEMA: 'Marker.2',
  name: says,
  color: 'GREEN',
  metadata: {},
  marked_range: range(samplesFromMs(atMs + leadInMs(list), MARKER_RATE), 0, MARKER_RATE),
});

const part = { metadata: {}, effects: [], markers: [] };
/** Between parts of one recording a shorter gap is rounding. */
const MIN_GAP_MS = 1e-6;

function trackOf(list: SlipList, items: readonly SlipItem[]) {
  let atMs = 0;
  const children = items.flatMap((item) => {
    const { sampleRateHz, durationMs } = item;
    const gapMs = startMs(list, item) - atMs;
    atMs = startMs(list, item) + durationMs / speedOf(item);
    const gap = {
      ...part,
      OTIO_SCHEMA: 'Gap.1',
      name: '',
      source_range: range(0, samplesFromMs(gapMs, sampleRateHz), sampleRateHz),
    };
    return gapMs > (item === items[0] ? 0 : MIN_GAP_MS) ? [gap, clipOf(item)] : [clipOf(item)];
  });
  return { ...part, OTIO_SCHEMA: 'Track.1', name: items[0]!.name, kind: 'Audio', source_range: null, children };
}

function clipOf(item: SlipItem) {
  const { sampleRateHz, durationMs, fromMs = 0 } = item;
  const samples = (ms: number) => samplesFromMs(ms, sampleRateHz);
  return {
    ...part,
    OTIO_SCHEMA: 'Clip.1',
    name: item.name,
    source_range: range(samples(fromMs), samples(durationMs), sampleRateHz),
    effects:
      item.longerPpm === 0
        ? []
        : [
            {
              OTIO_SCHEMA: 'LinearTimeWarp.1',
              name: 'drift',
              effect_name: 'LinearTimeWarp',
              metadata: {},
              time_scalar: speedOf(item),
            },
          ],
    media_reference: {
      OTIO_SCHEMA: 'ExternalReference.1',
      name: item.fileName,
      target_url: encodeURI(item.fileName),
      available_range: range(0, samples(fromMs + durationMs), sampleRateHz),
      metadata: {},
    },
  };
}
