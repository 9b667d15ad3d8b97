import { memo } from 'react';
import type { Cable, Rig } from '#core/model/rig/index.ts';
import type { Placed, Point } from '#core/output/layout/index.ts';
import { BOX, type BoxFact, factsOf, MAX_STRANDS, type MapBox, type MapLine } from '#core/output/map/index.ts';
import { hueOf } from '#web/shared/parts/index.ts';
import { wire as say, textOf } from '#words/index.ts';
import { type Balloon, beside, broken, polyline, strandOffset, strandWidth } from './drawn.ts';

interface LineProps {
  /** Of each source. */
  readonly hues: ReadonlyMap<string, string>;
  /** Accessible name. */
  readonly said: string;
  readonly cable: Cable | undefined;
  readonly line: MapLine;
  readonly points: readonly Point[];
  readonly tapped: boolean;
  readonly dim: boolean;
  /** The finding in hand is about it. */
  readonly marked: boolean;
  /** Its strands are shown one by one. */
  readonly apart?: boolean;
  readonly onTap: (line: MapLine) => void;
}

const BAND_PX = 7;
/** What is not asked for stays to be seen. */
const FADED = 0.2;
const DASHES: Partial<Record<MapLine['medium'], string>> = { air: '1 4', light: '1 4', radio: '9 4', power: '2 3' };
const ASSUMED = '6 4';
/** Small marks in the hues of what a bundle carries, near its beginning. */
const PIP_PX = 3;
const PIP_PITCH_PX = 8;
const PIPS_FROM_PX = 9;

/** One cable: as many lines as sources arrive in it, a gap where none does, an arrow where it enters. */
export const LineMark = memo(function LineMark(props: LineProps) {
  const { hues, said, cable, line, points, tapped, dim, marked, apart = false, onTap } = props;
  const assumed = cable?.known === 'assumed' && cable.medium === 'lead';
  const dash = DASHES[line.medium] ?? (assumed ? ASSUMED : undefined);
  const strands = line.strands.slice(0, MAX_STRANDS);
  const end = points[points.length - 1]!;
  const bare = strands.length === 0;
  const wide = Math.max(1, strands.length) * 4 + BAND_PX;
  return (
    // biome-ignore lint/a11y/useSemanticElements: a line of a drawing
    <g
      role="button"
      aria-label={said}
      className={`map-line ${tapped || apart ? 'apart' : ''}`}
      opacity={dim ? FADED : 1}
      onClick={() => onTap(line)}
      onKeyDown={(e) => e.key === 'Enter' && onTap(line)}
    >
      <title>{said}</title>
      <polyline points={polyline(points)} fill="none" stroke="transparent" strokeWidth={Math.max(wide, 12)} />
      {tapped && (
        <>
          <polyline points={polyline(points)} fill="none" stroke="var(--ink2)" strokeWidth={wide + 1.6} />
          <polyline points={polyline(points)} fill="none" stroke="var(--band)" strokeWidth={wide} />
        </>
      )}
      {marked && (
        <polyline
          points={polyline(points)}
          fill="none"
          stroke="var(--fix)"
          strokeOpacity="0.28"
          strokeWidth={wide + 3}
        />
      )}
      {strands.length > 1 && (
        <g className="map-bundle">
          <polyline
            points={polyline(points)}
            fill="none"
            stroke="var(--ink2)"
            strokeWidth={1.2 + 0.6 * strands.length}
            strokeDasharray={dash}
          />
          {strands.map(({ sourceId }, i) => (
            <circle
              key={sourceId}
              cx={points[0]![0] + PIPS_FROM_PX + i * PIP_PITCH_PX}
              cy={points[0]![1]}
              r={PIP_PX}
              fill={hues.get(sourceId)}
              stroke="var(--paper)"
            />
          ))}
        </g>
      )}
      <g className={strands.length > 1 ? 'map-strands' : undefined}>
        {strands.map(({ sourceId, strength }, i) => (
          <polyline
            key={sourceId}
            points={polyline(beside(points, strandOffset(i, strands.length)))}
            fill="none"
            stroke={hues.get(sourceId)}
            strokeWidth={assumed ? Math.min(1.6, strandWidth(strength)) : strandWidth(strength)}
            strokeDasharray={dash}
          />
        ))}
      </g>
      {bare && !line.silent && (
        <polyline
          points={polyline(points)}
          fill="none"
          stroke="var(--rule2)"
          strokeWidth="1.2"
          strokeDasharray={dash}
        />
      )}
      {bare && line.silent && <Gap points={points} />}
      <path d={`M${end[0]} ${end[1]}l-7 -3.5v7z`} fill="var(--ink)" />
    </g>
  );
});

/** Silence: the line is broken, with two short strokes. */
function Gap({ points }: { points: readonly Point[] }) {
  const { before, after, at, level } = broken(points);
  return (
    <g fill="none" stroke="var(--ink2)" strokeWidth="1.2">
      <polyline points={polyline(before)} />
      <polyline points={polyline(after)} strokeDasharray="2 3" />
      <path
        d={
          level
            ? `M${at[0] - 4} ${at[1] + 5}l4 -10M${at[0]} ${at[1] + 5}l4 -10`
            : `M${at[0] - 5} ${at[1]}l10 -4M${at[0] - 5} ${at[1] + 4}l10 -4`
        }
      />
    </g>
  );
}

interface BoxProps {
  readonly sources: Rig['sources'];
  readonly listeners: Rig['listeners'];
  /** The computer that it runs on. */
  readonly host: string | null;
  readonly box: MapBox;
  readonly at: Placed;
  readonly tapped: boolean;
  readonly onTap: (deviceId: string) => void;
  readonly onFold: (deviceId: string) => void;
}

const LETTER_BOX_PX = 22;
/** Letters that a line of a box takes; the whole of it is its title. */
const FACT_LETTERS = 16;
const cut = (text: string): string => (text.length > FACT_LETTERS ? `${text.slice(0, FACT_LETTERS - 1)}…` : text);

/** A device: a plain outlined box with its name, the letters of what begins there, and who hears there. */
export const BoxMark = memo(function BoxMark(props: BoxProps) {
  const { sources, listeners, host, box, at, tapped, onTap, onFold } = props;
  const heard = listeners.filter((l) => box.listenerIds.includes(l.id)).map((l) => l.name);
  const sayFact = ({ kind, of }: BoxFact): string => {
    if (kind === 'holds') return of;
    if (kind === 'more') return say.moreHeld({ count: Number(of) });
    const name = listeners.find((l) => l.id === of)?.name ?? '';
    return `→ ${name.replace(`${box.name}, `, '')}`;
  };
  const said = `${box.name}, ${box.typeName}${host ? say.on({ host }) : ''}${heard.length > 0 ? say.arrivesAt({ join: heard.join(', ') }) : ''}`;
  const nameEnd = BOX.firstLinePx + (box.lines.length - 1) * BOX.linePx;
  return (
    // biome-ignore lint/a11y/useSemanticElements: a device of a drawing
    <g
      role="button"
      aria-label={said}
      className="map-box"
      transform={`translate(${at.xPx} ${at.yPx})`}
      onClick={() => onTap(box.deviceId)}
      onKeyDown={(e) => e.key === 'Enter' && onTap(box.deviceId)}
    >
      <title>{said}</title>
      <rect
        width={at.widthPx}
        height={at.heightPx}
        fill={tapped ? 'var(--mark)' : 'var(--paper)'}
        stroke={tapped ? 'var(--ink)' : 'var(--rule2)'}
        strokeWidth={tapped ? 1.6 : 1}
        strokeDasharray={box.on ? '5 2' : undefined}
      />
      {box.lines.map((line, i) => (
        <text key={line} className="map-name" x={BOX.padPx} y={BOX.firstLinePx + i * BOX.linePx}>
          {line}
        </text>
      ))}
      {factsOf(box).map((fact, i) => (
        <text key={`${fact.kind} ${fact.of}`} className="map-fact" x={BOX.padPx} y={nameEnd + (i + 1) * BOX.linePx}>
          {cut(sayFact(fact))}
        </text>
      ))}
      {box.sourceIds.map((id, i) => {
        const source = sources.find((s) => s.id === id)!;
        const x = at.widthPx - (i + 1) * (LETTER_BOX_PX + 3) - 2;
        return (
          <g key={id} transform={`translate(${x} ${at.heightPx - LETTER_BOX_PX - 3})`}>
            <rect width={LETTER_BOX_PX} height={LETTER_BOX_PX} rx="2" fill={hueOf(source)} />
            <text className="map-letter" x={LETTER_BOX_PX / 2} y={17.5} textAnchor="middle">
              {source.letter}
            </text>
          </g>
        );
      })}
      {box.group && (
        // biome-ignore lint/a11y/useSemanticElements: a mark of a drawing
        <g
          role="button"
          className="map-fold"
          aria-expanded={box.group === 'open'}
          aria-label={box.group === 'open' ? say.foldGroup({ device: box.name }) : say.openGroup({ device: box.name })}
          transform={`translate(${at.widthPx - 15} 15)`}
          onClick={(e) => {
            e.stopPropagation();
            onFold(box.deviceId);
          }}
        >
          <title>
            {box.group === 'open' ? say.foldGroup({ device: box.name }) : say.openGroup({ device: box.name })}
          </title>
          <circle r="11" fill="var(--raised)" stroke="var(--rule2)" />
          <path d={box.group === 'open' ? 'M-5 0H5' : 'M-5 0H5M0 -5V5'} stroke="var(--ink)" strokeWidth="2" />
        </g>
      )}
    </g>
  );
});

/** A finding's number beside its place. */
export function BalloonMark({
  balloon,
  chosen,
  onChoose,
}: {
  balloon: Balloon;
  chosen: boolean;
  onChoose: () => void;
}) {
  const { finding, number, x, y } = balloon;
  return (
    // biome-ignore lint/a11y/useSemanticElements: a balloon of a drawing
    <g
      role="button"
      aria-label={say.issueNumber({ number, says: textOf(finding.asks ?? finding.says) })}
      className={`map-balloon ${finding.severity}`}
      transform={`translate(${x} ${y})`}
      onClick={(e) => {
        e.stopPropagation();
        onChoose();
      }}
      onKeyDown={(e) => e.key === 'Enter' && onChoose()}
    >
      <title>{textOf(finding.asks ?? finding.says)}</title>
      <circle
        r="12"
        fill={chosen ? 'var(--mark)' : 'var(--paper)'}
        stroke="currentColor"
        strokeWidth={chosen ? 2.4 : 1.6}
      />
      <text textAnchor="middle" y="6">
        {number}
      </text>
    </g>
  );
}
