import { Button, chakra, Textarea } from '@chakra-ui/react';
import { useMemo, useRef, useState } from 'react';
import { type Edid, EdidError, edidBytes, linkName, modeName, parseEdid } from '#core/model/picture/index.ts';
import type { Device } from '#core/model/rig/index.ts';
import { FileInput, off, Sheet, StateMark, Term } from '#web/shared/parts/index.ts';
import { common, wire as say, textOf } from '#words/index.ts';

const BLOCK = 128;
const MAX_BYTES = 8 * BLOCK;
const SHOWN_MODES = 6;

type Read = { ok: true; edid: Edid; hex: string } | { ok: false; says: string };

const hexOf = (bytes: Uint8Array): string => [...bytes].map((b) => b.toString(16).padStart(2, '0')).join('');

/** Bytes from a file or from text, as an EDID; or why they are none. */
export function readEdid(from: Uint8Array | string): Read {
  try {
    const bytes = typeof from === 'string' ? edidBytes(from) : from;
    if (bytes.length > MAX_BYTES) return { ok: false, says: say.edidHasAtMost({ MAX_BYTES, bytes: bytes.length }) };
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
      <chakra.p marginTop="10px">
        <Term id="edid">{say.edidWhatDeviceReports()}</Term>:{' '}
        {kept ? kept.ok ? sayEdid(kept.edid) : kept.says : <span className="quiet">{say.notReadYet()}</span>}
      </chakra.p>
      <chakra.p className="row" marginTop="4px">
        <Button onClick={() => setOpen(true)}>{say.readEdid()}</Button>
        {device.edid && <Button onClick={() => onEdid(without)}>{say.removeEdid()}</Button>}
      </chakra.p>
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
    <Sheet title={say.edidWith({ name })} onClose={onClose}>
      <p className="quiet">{say.chooseSavedEdidFile()}</p>
      <chakra.p marginTop="8px">
        <Button onClick={() => chooser.current?.click()}>{say.chooseFile()}</Button>
      </chakra.p>
      <FileInput
        chooser={chooser}
        label={say.edidFile()}
        onFile={(file) => {
          if (file.size <= MAX_BYTES) void file.arrayBuffer().then((b) => setFrom(new Uint8Array(b)));
          else setFrom(new Uint8Array(MAX_BYTES + 1));
        }}
      />
      <Textarea
        aria-label={say.edidBytesInHex()}
        spellCheck={false}
        rows={6}
        className="code"
        value={typeof from === 'string' ? from : hexOf(from.subarray(0, MAX_BYTES))}
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
                <li key={textOf(modeName(m.mode))}>
                  {textOf(modeName(m.mode))}
                  {m.only420 ? say.colorOnly() : ''}
                </li>
              ))}
            </ul>
            {read.edid.modes.length > SHOWN_MODES && (
              <p className="quiet">{say.andModeMore({ mode: read.edid.modes.length - SHOWN_MODES })}</p>
            )}
          </>
        )}
      </div>
      <chakra.p className="row" marginTop="12px">
        <Button
          variant="solid"
          {...off(read?.ok ? null : say.noEdidRead())}
          onClick={() => read?.ok && onKeep(read.hex)}
        >
          {common.save()}
        </Button>
        <Button onClick={onClose}>{common.cancel()}</Button>
      </chakra.p>
    </Sheet>
  );
}

/** 'Club screen: 14 modes, at most a 18 Gbit/s link, sound PCM 2' */
function sayEdid({ name, modes, link, sound }: Edid): string {
  const formats = sound.map((s) => `${s.format} ${s.channels}`).join(', ') || 'none';
  return say.edidSummary({ name: name ? `${name}: ` : '', mode: modes.length, link: linkName(link), formats });
}
