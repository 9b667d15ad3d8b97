import { Button } from '@chakra-ui/react';
import { Link, useRouteError } from 'react-router';

/** What browsers say where a part of the page is not to be had: after an update its files have other names. */
const NOT_LOADED = /dynamically imported module|module script failed|Unable to preload/i;

/** A page that is not there, or a screen that failed: what happened, what was kept, what to do. */
export function Broken() {
  const error = useRouteError();
  const says = error instanceof Error ? error.message : '';
  const isNotLoaded = NOT_LOADED.test(says);
  return (
    <main className="page">
      <h1>{error ? (isNotLoaded ? 'This screen did not come' : 'This screen failed') : 'There is no such page'}</h1>
      <p className="quiet">
        {isNotLoaded
          ? 'The server does not answer, or Mellow Tap was updated since this page was opened. '
          : says && `${says} `}
        Your rigs and takes are kept, and what you did here is sent when the page is there again.{' '}
        <Link to="/">Go to the rigs</Link>, or reload the page.
      </p>
      {Boolean(error) && (
        <p className="row" style={{ marginTop: 10 }}>
          <Button onClick={() => window.location.reload()}>Reload</Button>
        </p>
      )}
    </main>
  );
}
