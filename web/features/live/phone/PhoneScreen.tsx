import { Button, Input } from '@chakra-ui/react';
import { useEffect, useRef, useState } from 'react';
import { Link, useParams } from 'react-router';
import { Problem } from '#api/index.ts';
import { off } from '#web/shared/parts/index.ts';
import { api, isOffline, sayProblem } from '#web/shared/store/index.ts';
import { phone as say } from '#words/index.ts';
import { PhoneRig } from './PhoneRig.tsx';

/** The run on a phone or tablet that is held at the desk: behind a code, and nothing else. */
export function PhoneScreen() {
  const { rigId } = useParams();
  const rigs = api.useRigsQuery(undefined);
  const denied = (rigs.error as { status?: unknown } | undefined)?.status === 401;
  if (denied) return <Code onOpen={() => void rigs.refetch()} />;
  if (rigId) return <PhoneRig key={rigId} rigId={rigId} />;
  return (
    <main className="page hand">
      <h1>{say.whichRig()}</h1>
      {rigs.error && <p className="fix">{isOffline(rigs.error) ? say.cantReachComputer() : sayProblem(rigs.error)}</p>}
      <ul className="plain">
        {(rigs.data ?? []).map((r) => (
          <li key={r.id}>
            <Link className="hand-rig" to={`/hand/${r.id}`}>
              {r.name}
            </Link>
          </li>
        ))}
      </ul>
    </main>
  );
}

/** The code comes with the picture that was photographed, or is typed. It is not left in the address. */
function codeInAddress(): string {
  const code = decodeURIComponent(location.hash.slice(1));
  if (code) history.replaceState(null, '', location.pathname);
  return code;
}

function Code({ onOpen }: { onOpen: () => void }) {
  const [code, setCode] = useState('');
  const [says, setSays] = useState<string | null>(null);
  const tried = useRef(false);
  const open = async (given: string) => {
    setSays(null);
    try {
      const response = await fetch('/api/door', {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({ code: given }),
      });
      if (response.ok) return onOpen();
      const problem = Problem.safeParse(await response.json());
      setSays(problem.success ? problem.data.detail : say.computerCouldntReadThat());
    } catch {
      setSays(say.cantReachComputerIs());
    }
  };
  useEffect(() => {
    if (tried.current) return;
    tried.current = true;
    const given = codeInAddress();
    if (given) void open(given);
  });
  return (
    <main className="page hand">
      <h1>{say.mellowTapOnPhone()}</h1>
      <p>{say.enterCodeShownOn()}</p>
      <form
        className="row"
        onSubmit={(e) => {
          e.preventDefault();
          void open(code);
        }}
      >
        <Input
          aria-label={say.code()}
          value={code}
          autoComplete="off"
          autoCapitalize="characters"
          maxLength={20}
          size="lg"
          onChange={(e) => setCode(e.target.value)}
        />
        <Button type="submit" variant="solid" size="lg" {...off(code.trim() === '' ? say.typeCodeFirst() : null)}>
          {say.open()}
        </Button>
      </form>
      {says && (
        <p className="fix" role="alert">
          {says}
        </p>
      )}
    </main>
  );
}
