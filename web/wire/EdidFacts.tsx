import { Button } from '@chakra-ui/react';
import { useMemo, useRef, useState } from 'react';
import { type Edid, EdidError, edidBytes, linkName, modeName, parseEdid } from '#core/picture/index.ts';
import type { Device } from '#core/rig/index.ts';
import { count, Sheet, StateMark, Term } from '#web/parts/index.ts';

const BLOCK = 128;
const MOST_BYTES = 8 * BLOCK;
const SHOWN_MODES = 6;

type Read = { ok: true; edid: Edid; hex: string } | { ok: false; says: string };

const hexOf = (bytes: Uint8Array): string => [...bytes].map((b) => b.toString(16).padStart(2, '0')).join('');

/** Bytes from a file or from text, as an EDID; or why they are none. */
export function readEdid(from: Uint8Array | string): Read {
  try {
    const bytes = typeof from === 'string' ? edidBytes(from) : from;
    if (bytes.length > MOST_BYTES)
      return { ok: false, says: `An EDID has at most ${MOST_BYTES} bytes; this has ${bytes.length}.` };
    const edid = parseEdid(bytes);
    return { ok: true, edid, hex: hexOf(bytes.subarray(0, BLOCK * Math.floor(bytes.length / BLOCK))) };
  } catch (error) {
    if (error instanceof EdidError) return { ok: false, says: error.message };
    throw error;
  }
}

/** What a screen or capture device says of itself, and a way to read it in. */
export function EdidFacts({ device, onEdid }: { device: Device; onEdid: (device: Device) => void }) {
  const [open, setOpen] = useState(false);
  const kept = useMemo(() => (device.edid ? readEdid(device.edid) : null), [device.edid]);
  const { edid: _gone, ...without } = device;
  return (
    <>
      <p style={{ marginTop: 10 }}>
        <Term id="edid">What it says of itself (EDID)</Term>:{' '}
        {kept ? kept.ok ? sayEdid(kept.edid) : kept.says : <span className="quiet">not read yet</span>}
      </p>
      <p className="row" style={{ marginTop: 4 }}>
        <Button onClick={() => setOpen(true)}>Read an EDID</Button>
        {device.edid && <Button onClick={() => onEdid(without)}>Forget it</Button>}
      </p>
      {open && (
        <EdidSheet
          name={device.name}
          onClose={() => setOpen(false)}
          onKeep={(hex) => {
            onEdid({ ...device, edid: hex });
            setOpen(false);
          }}
        />
      )}
    </>
  );
}

function EdidSheet({ name, onClose, onKeep }: { name: string; onClose: () => void; onKeep: (hex: string) => void }) {
  const [from, setFrom] = useState<Uint8Array | string>('');
  const chooser = useRef<HTMLInputElement>(null);
  const read = useMemo(() => (from.length === 0 ? null : readEdid(from)), [from]);
  return (
    <Sheet title={`EDID of ${name}`} onClose={onClose}>
      <p className="quiet">
        Choose the file that was saved, or paste the bytes in hexadecimal, however they are parted.
      </p>
      <p style={{ marginTop: 8 }}>
        <Button onClick={() => chooser.current?.click()}>Choose a file</Button>
      </p>
      <input
        ref={chooser}
        type="file"
        hidden
        aria-label="EDID file"
        onChange={(e) => {
          const file = e.target.files?.[0];
          e.target.value = '';
          if (file && file.size <= MOST_BYTES) void file.arrayBuffer().then((b) => setFrom(new Uint8Array(b)));
          else if (file) setFrom(new Uint8Array(MOST_BYTES + 1));
        }}
      />
      <textarea
        aria-label="EDID in hexadecimal"
        spellCheck={false}
        rows={6}
        className="code"
        value={typeof from === 'string' ? from : hexOf(from.subarray(0, MOST_BYTES))}
        onChange={(e) => setFrom(e.target.value)}
      />
      <div aria-live="polite">
        {read && !read.ok && (
          <p className="fix">
            <StateMark state="fix" /> {read.says}
          </p>
        )}
        {read?.ok && (
          <>
            <p className="good">
              <StateMark state="good" /> {sayEdid(read.edid)}
            </p>
            <ul>
              {read.edid.modes.slice(0, SHOWN_MODES).map((m) => (
                <li key={modeName(m.mode)}>
                  {modeName(m.mode)}
                  {m.only420 ? ', with halved colours only' : ''}
                </li>
              ))}
            </ul>
            {read.edid.modes.length > SHOWN_MODES && (
              <p className="quiet">and {count(read.edid.modes.length - SHOWN_MODES, 'mode')} more</p>
            )}
          </>
        )}
      </div>
      <p className="row" style={{ marginTop: 12 }}>
        <Button variant="solid" disabled={!read?.ok} onClick={() => read?.ok && onKeep(read.hex)}>
          Keep it
        </Button>
        <Button onClick={onClose}>Leave it</Button>
      </p>
    </Sheet>
  );
}

/** 'Club screen: 14 modes, at most a 18 Gbit/s link, sound PCM 2' */
function sayEdid({ name, modes, link, sound }: Edid): string {
  const formats = sound.map((s) => `${s.format} ${s.channels}`).join(', ') || 'none';
  return `${name ? `${name}: ` : ''}${count(modes.length, 'mode')}, up to a ${linkName(link)}, sound ${formats}`;
}
