import { Button, chakra } from '@chakra-ui/react';
import { type KeyboardEvent, memo, useMemo, useState } from 'react';
import { deviceIn, endName, findDevice, findTypes, type PortRef, type Rig } from '#core/model/rig/index.ts';
import type { Placed } from '#core/output/layout/index.ts';
import {
  LAYERS,
  type Layer,
  LETTER_PX,
  type LineMap,
  type MapLine,
  stepTap,
  type Turn,
  usuallyFolded,
} from '#core/output/map/index.ts';
import type { Finding } from '#core/rules/index.ts';
import { deviceName, type Evaluation } from '#core/signal/index.ts';
import { useSize } from '#web/shared/charts/index.ts';
import { Choice, hueOf, rich, useKeyHint, useSteady } from '#web/shared/parts/index.ts';
import { wire as say } from '#words/index.ts';
import {
  areaOf,
  balloonsOf,
  concerned,
  extentsOf,
  isolated,
  lengthsOf,
  partOf,
  sayLine,
  tappedCables,
  withinView,
} from './drawn.ts';
import { MiniMap } from './MiniMap.tsx';
import { BalloonMark, BoxMark, LineMark } from './marks.tsx';
import { useLineMap } from './useLineMap.ts';
import { useView } from './useView.ts';

interface Props {
  readonly rig: Rig;
  readonly evaluation: Evaluation;
  readonly findings: readonly Finding[];
  readonly chosen: Finding | undefined;
  /** Someone chose it: what does not concern it fades. */
  readonly isAsked: boolean;
  readonly tap: PortRef | null;
  readonly onTap: (tap: PortRef | null) => void;
  readonly onFinding: (finding: Finding) => void;
}

const TURNS: Record<string, Turn> = { ArrowRight: 'on', ArrowLeft: 'back', ArrowUp: 'up', ArrowDown: 'down' };
const LAYER_NAMES: Record<Layer, string> = {
  all: say.audioAndVideo(),
  sound: say.audioOnly(),
  picture: say.videoOnly(),
  usb: say.usbOnly(),
  power: say.powerOnly(),
};
/** Smaller letters are hard to read on a screen, px. */
const LEAST_LETTER_PX = 12;
/** Lengths that no one can read are not set. */
const LEAST_LENGTH_PX = 9;
const LEAST_SCALE = LEAST_LETTER_PX / LETTER_PX;
const USUAL_HEIGHT = 430;

/** The rig as a drawing: the signal from left to right, each source in its hue, the tapped way under the highlighter. */
export const LineMapView = memo(function LineMapView(props: Props) {
  const { rig, evaluation, findings, chosen, isAsked, tap, onTap, onFinding } = props;
  const [layer, setLayer] = useState<Layer>('all');
  const [alone, setAlone] = useState<{ sourceId: string | null; listenerId: string | null }>({
    sourceId: null,
    listenerId: null,
  });
  const [folded, setFolded] = useState(() => usuallyFolded(rig));
  const fold = useSteady((deviceId: string) => setFolded((now) => toggled(now, deviceId)));
  const { map: setOut, busy } = useLineMap(rig, evaluation, layer, folded);
  const map = setOut ?? NOTHING_YET;
  const { drawing } = map;
  const [frame, widthPx, heightPx] = useSize<HTMLDivElement>(800, USUAL_HEIGHT);
  const { ref, view, closer, farther, fitAll, center, show, dragging } = useView(
    drawing.widthPx,
    drawing.heightPx,
    widthPx,
    heightPx,
    LEAST_SCALE,
  );
  const ways = useMemo(() => isolated(evaluation, alone.sourceId, alone.listenerId), [evaluation, alone]);
  const asked = useMemo(
    () => (isAsked && chosen ? concerned(evaluation, chosen) : null),
    [evaluation, chosen, isAsked],
  );
  const only = ways ?? asked;
  const tapped = useMemo(() => tappedCables(evaluation, tap), [evaluation, tap]);
  const extents = useMemo(() => extentsOf(drawing), [drawing]);
  const seen = (at: Parameters<typeof withinView>[0]) => withinView(at, view, widthPx, heightPx);
  const boxSeen = ({ xPx, yPx, widthPx: w, heightPx: h }: Placed) =>
    seen({ left: xPx, top: yPx, right: xPx + w, bottom: yPx + h });
  const balloons = useMemo(() => balloonsOf(map, findings), [map, findings]);
  const put = (at: PortRef) => {
    onTap(at);
    const box = drawing.boxes.get(map.boxOf.get(at.deviceId) ?? '');
    if (box) show(box.xPx + box.widthPx / 2, box.yPx + box.heightPx / 2);
  };
  const tapLine = useSteady((line: MapLine) => put(line.to));
  const tapBox = useSteady((deviceId: string) => put(tapOf(rig, map, deviceId)));
  const hues = useMemo(() => new Map(rig.sources.map((s) => [s.id, hueOf(s)])), [rig.sources]);
  const cables = useMemo(() => new Map(rig.cables.map((c) => [c.id, c])), [rig.cables]);
  const part = partOf(view, widthPx, heightPx);
  const isLegible = view.scale * LETTER_PX >= LEAST_LENGTH_PX;
  const labels = useMemo(
    () => (isLegible ? lengthsOf(map, cables, balloons, areaOf(part)) : []),
    [map, cables, balloons, part, isLegible],
  );
  useKeyHint('arrowleft,arrowright,arrowup,arrowdown', say.onMapMoveTap());
  useKeyHint('plus,minus,0', say.onMapZoomIn());
  const start = (): PortRef | null => rig.sources[0]?.sound ?? map.lines[0]?.from ?? null;
  const onKeyDown = (e: KeyboardEvent) => {
    const turn = TURNS[e.key];
    if (turn) {
      const next = tap ? stepTap(rig, evaluation, map, tap, turn) : start();
      if (next) put(next);
    } else if (e.key === '+' || e.key === '=') closer();
    else if (e.key === '-') farther();
    else if (e.key === '0') fitAll();
    else if (e.key === 'Escape' && tap) onTap(null);
    else return;
    e.preventDefault();
    e.stopPropagation();
  };
  const types = findTypes(rig);
  const said = tap ? `${deviceName(rig, tap.deviceId)}, ${endName(rig, types, tap)}` : say.noTapPoint();
  return (
    <>
      <chakra.div className="spread" marginTop="8px">
        <span className="row map-choices">
          <Choice
            label={say.layerShown()}
            value={layer}
            options={LAYERS.map((l) => [l, LAYER_NAMES[l]] as const)}
            onChange={(l) => setLayer(l as Layer)}
          />
          <Choice
            label={say.sourceShownAlone()}
            value={alone.sourceId ?? ''}
            options={[['', say.everySource()], ...rig.sources.map((s) => [s.id, say.only({ s: s.name })] as const)]}
            onChange={(id) => setAlone({ ...alone, sourceId: id || null })}
          />
          <Choice
            label={say.destinationShownAlone()}
            value={alone.listenerId ?? ''}
            options={[
              ['', say.everyDestination()],
              ...rig.listeners.map((l) => [l.id, say.onlyWith({ l: l.name })] as const),
            ]}
            onChange={(id) => setAlone({ ...alone, listenerId: id || null })}
          />
        </span>
        <span className="row">
          <Button onClick={farther} aria-label={say.zoomOut()}>
            −
          </Button>
          <Button onClick={closer} aria-label={say.zoomIn()}>
            +
          </Button>
          <Button onClick={fitAll}>{rich(say.fit, {})}</Button>
        </span>
      </chakra.div>
      <div
        ref={frame}
        className="map"
        role="application"
        aria-label={say.signalMapArrowKeys({ rig: rig.name })}
        // biome-ignore lint/a11y/noNoninteractiveTabindex: a drawing that one walks by arrow keys
        tabIndex={0}
        onKeyDown={onKeyDown}
      >
        <svg ref={ref} width={widthPx} height={heightPx} {...dragging}>
          <title>{say.signalMapTitle()}</title>
          <g transform={`scale(${view.scale}) translate(${-view.x} ${-view.y})`}>
            {map.lines
              .filter((line) => seen(extents.get(line.id)!))
              .map((line) => (
                <LineMark
                  key={line.id}
                  hues={hues}
                  said={sayLine(rig, line)}
                  cable={cables.get(line.cableIds[0] ?? '')}
                  line={line}
                  points={drawing.wires.get(line.id)!}
                  tapped={line.cableIds.some((id) => tapped.has(id))}
                  dim={only !== null && !line.cableIds.some((id) => only.has(id))}
                  marked={line.cableIds.some((id) => chosen?.where.cableIds.includes(id))}
                  apart={ways !== null && line.cableIds.some((id) => ways.has(id))}
                  onTap={tapLine}
                />
              ))}
            {map.boxes
              .filter((box) => boxSeen(drawing.boxes.get(box.deviceId)!))
              .map((box) => (
                <BoxMark
                  key={box.deviceId}
                  sources={rig.sources}
                  listeners={rig.listeners}
                  host={(box.on && findDevice(rig, box.on)?.name) || null}
                  box={box}
                  at={drawing.boxes.get(box.deviceId)!}
                  tapped={tap !== null && map.boxOf.get(tap.deviceId) === box.deviceId}
                  onTap={tapBox}
                  onFold={fold}
                />
              ))}
            {labels
              .filter(({ xPx, yPx }) => seen({ left: xPx, top: yPx, right: xPx, bottom: yPx }))
              .map(({ id, text, xPx, yPx }) => (
                <text key={id} className="map-length" x={xPx} y={yPx} textAnchor="middle">
                  {text}
                </text>
              ))}
            {balloons
              .filter(({ x, y }) => seen({ left: x, top: y, right: x, bottom: y }))
              .map((b) => (
                <BalloonMark
                  key={b.finding.id}
                  balloon={b}
                  chosen={b.finding === chosen}
                  onChoose={() => onFinding(b.finding)}
                />
              ))}
          </g>
        </svg>
        <MiniMap drawing={drawing} view={view} pageW={widthPx} pageH={heightPx} onCenter={center} />
        <p className="visually-hidden" aria-live="polite">
          {say.tapPointWith({ said })}
        </p>
      </div>
      <chakra.p className="small quiet" marginTop="2px">
        {say.mapLegend()}
        {busy && ` ${say.drawingTheMap()}`}
        {!busy &&
          drawing.boxes.size === 0 &&
          layer !== 'all' &&
          ` ${say.nothingOnLayer({ layer: LAYER_NAMES[layer] })}`}
      </chakra.p>
    </>
  );
});

const NOTHING_YET: LineMap = {
  layer: 'all',
  boxes: [],
  boxOf: new Map(),
  lines: [],
  shapes: [],
  wires: [],
  drawing: { widthPx: 1, heightPx: 1, boxes: new Map(), wires: new Map(), crossings: 0, seats: new Map() },
};

const toggled = (all: ReadonlySet<string>, id: string): ReadonlySet<string> =>
  all.has(id) ? new Set([...all].filter((other) => other !== id)) : new Set([...all, id]);

/** Where to look first at a box: its output, else its input. */
function tapOf(rig: Rig, { lines }: LineMap, deviceId: string): PortRef {
  const out = lines.find((l) => l.fromBox === deviceId)?.from;
  const into = lines.find((l) => l.toBox === deviceId)?.to;
  const heard = rig.listeners.find((l) => l.sound.deviceId === deviceId)?.sound;
  const portId = findTypes(rig).get(deviceIn(rig, deviceId).typeId)!.ports[0]?.id ?? '';
  return heard ?? out ?? into ?? { deviceId, portId };
}
