import { Sheet, showKeys, Table, useKeyHints } from '#web/shared/parts/index.ts';
import { frame } from '#words/index.ts';

/** The keys of the page that is shown. */
export function KeyDialog({ onClose }: { onClose: () => void }) {
  const hints = useKeyHints();
  return (
    <Sheet title={frame.keysOfView()} onClose={onClose}>
      <Table>
        <tbody>
          {hints.map((hint) => (
            <tr key={hint.keys + hint.label}>
              <td>
                <kbd>{showKeys(hint.keys)}</kbd>
              </td>
              <td>{hint.label}</td>
            </tr>
          ))}
        </tbody>
      </Table>
    </Sheet>
  );
}
