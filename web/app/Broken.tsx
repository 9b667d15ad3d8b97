import { Link, useRouteError } from 'react-router';

/** A page that is not there, or a screen that failed: what happened, what was kept, what to do. */
export function Broken() {
  const error = useRouteError();
  return (
    <main className="page">
      <h1>{error ? 'This screen failed' : 'There is no such page'}</h1>
      <p className="quiet">
        {error instanceof Error ? `${error.message} ` : ''}
        Your rigs and takes are kept. <Link to="/">Go to the rigs</Link>, or reload the page.
      </p>
    </main>
  );
}
