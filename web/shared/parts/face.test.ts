import { describe, expect, it } from 'vitest';
import { catalogue } from '#core/model/rig/index.ts';
import { layoutFace } from './face.ts';

const NONE = { portId: null, settingId: null };

describe('the drawing of a box', () => {
  it('has every socket and every control of every type once, none on another, all within its edge', () => {
    for (const type of catalogue) {
      const face = layoutFace(type, NONE);
      const sockets = new Set(type.ports.filter((p) => p.direction !== 'inside').map((p) => p.socket ?? p.id));
      expect(face.marks).toHaveLength(sockets.size + type.settings.length);
      expect(new Set(face.marks.map((m) => `${m.xPx} ${m.yPx}`)).size).toBe(face.marks.length);
      for (const { xPx, yPx } of face.marks) {
        expect(xPx).toBeGreaterThan(0);
        expect(xPx).toBeLessThan(face.widthPx);
        expect(yPx).toBeGreaterThan(0);
        expect(yPx).toBeLessThan(face.heightPx);
      }
    }
  });
  it('means the socket behind which an end stands, and the control that is asked', () => {
    const mixer = catalogue.find((t) => t.id === 'mixer-usb-send')!;
    const meant = (at: Parameters<typeof layoutFace>[1]) =>
      layoutFace(mixer, at)
        .marks.filter((m) => m.meant)
        .map((m) => m.id);
    const usb = mixer.ports.find((p) => p.socket)!;
    expect(meant({ portId: usb.id, settingId: null })).toEqual([usb.socket]);
    const [control] = mixer.settings;
    expect(meant({ portId: usb.id, settingId: control!.id })).toEqual([control!.id]);
    expect(meant(NONE)).toEqual([]);
  });
});
