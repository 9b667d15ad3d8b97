import { type DeviceType, isProgram } from '#core/model/rig/index.ts';
import { parts as say } from '#words/index.ts';
import { type FaceMark, layoutFace } from './face.ts';

interface Props {
  readonly type: DeviceType;
  readonly portId?: string | null;
  readonly settingId?: string | null;
}

/** The device as a drawing, with the socket or control that one has to look at. */
export function BoxFace({ type, portId = null, settingId = null }: Props) {
  const face = layoutFace(type, { portId, settingId });
  if (face.marks.length === 0) return null;
  const meant = face.marks.find((m) => m.meant);
  const said = say.boxDrawn({
    type: type.name,
    controls: meant ? say.lookAt({ meant: meant.name }) : say.itsSocketsAndControls(),
  });
  const software = isProgram(type);
  return (
    <figure className="face">
      <svg
        viewBox={`0 0 ${face.widthPx} ${face.heightPx}`}
        width={face.widthPx}
        height={face.heightPx}
        role="img"
        aria-label={said}
      >
        <title>{said}</title>
        <rect
          x="0.5"
          y="0.5"
          width={face.widthPx - 1}
          height={face.heightPx - 1}
          rx={software ? 6 : 2}
          fill="var(--paper)"
          stroke="var(--rule2)"
          strokeDasharray={software ? '5 2' : undefined}
        />
        {face.rulePx !== null && (
          <line x1="8" x2={face.widthPx - 8} y1={face.rulePx} y2={face.rulePx} stroke="var(--rule)" />
        )}
        {face.marks.map((mark) => (
          <g key={`${mark.shape} ${mark.id}`} transform={`translate(${mark.xPx} ${mark.yPx})`}>
            <title>{mark.name}</title>
            {mark.meant && <circle r="12.5" fill="var(--mark)" stroke="var(--ink)" strokeWidth="1.6" />}
            <g
              fill="none"
              stroke={mark.meant ? 'var(--ink)' : 'var(--ink2)'}
              strokeWidth={mark.meant ? 1.6 : 1}
              opacity={meant && !mark.meant ? 0.55 : 1}
            >
              {SHAPES[mark.shape]}
            </g>
          </g>
        ))}
      </svg>
      <figcaption className="small quiet">
        {say.schematicOnlyLayoutOn({ name: meant ? `${meant.name}. ` : '' })}
      </figcaption>
    </figure>
  );
}

const dot = (x: number, y: number) => (
  <circle key={`${x} ${y}`} cx={x} cy={y} r="1.2" fill="currentColor" stroke="none" />
);

/** Each kind of socket as it looks from the front, each control as it is handled. */
const SHAPES: Record<FaceMark['shape'], React.ReactNode> = {
  jack: (
    <>
      <circle r="6.5" />
      <circle r="2.6" />
    </>
  ),
  xlr: (
    <>
      <circle r="8.5" />
      {dot(-3.4, -1)}
      {dot(3.4, -1)}
      {dot(0, 4)}
    </>
  ),
  phono: (
    <>
      <circle r="5" />
      <circle r="1.6" fill="currentColor" stroke="none" />
    </>
  ),
  hdmi: <path d="M-8 -3.5H8V1L5.5 4H-5.5L-8 1Z" />,
  usb: (
    <>
      <rect x="-8" y="-4" width="16" height="8" />
      <path d="M-5.5 -1.5H5.5" />
    </>
  ),
  optical: <path d="M-5 5V-3L-3 -5H3L5 -3V5Z" />,
  network: <path d="M-7 -5H7V5H3V7H-3V5H-7Z" />,
  loudspeaker: <path d="M-8 -4H0V4H-8ZM2 -4H10V4H2Z" transform="translate(-1 0)" />,
  pins: (
    <>
      <circle r="8.5" />
      {[0, 1, 2, 3, 4, 5].map((i) => dot(5 * Math.cos((i * Math.PI) / 3), 5 * Math.sin((i * Math.PI) / 3)))}
    </>
  ),
  end: <rect x="-6" y="-6" width="12" height="12" rx="6" strokeDasharray="3 2" />,
  knob: (
    <>
      <circle r="7" />
      <path d="M0 -2V-7" />
    </>
  ),
  switch: (
    <>
      <rect x="-8" y="-4" width="16" height="8" rx="1" />
      <rect x="-7" y="-3" width="6" height="6" fill="currentColor" stroke="none" />
    </>
  ),
  button: <rect x="-6" y="-6" width="12" height="12" rx="2" />,
};
