import { Button, chakra } from '@chakra-ui/react';
import { useRouteError } from 'react-router';
import { rich } from '#web/shared/parts/index.ts';
import { frame } from '#words/index.ts';

/** What browsers say where a part of the page is not to be had: after an update its files have other names. */
const NOT_LOADED = /dynamically imported module|module script failed|Unable to preload/i;

/** A page that is not there, or a screen that failed: what happened, what was kept, what to do. */
export function Broken() {
  const error = useRouteError();
  const says = error instanceof Error ? error.message : '';
  const isNotLoaded = NOT_LOADED.test(says);
  return (
    <main className="page">
      <h1>{error ? (isNotLoaded ? frame.notLoaded() : frame.failed()) : frame.notFound()}</h1>
      <p className="quiet">
        {isNotLoaded ? frame.updated() : says} {frame.safe()} {rich(frame.goOrReload, {}, '/')}
      </p>
      {Boolean(error) && (
        <chakra.p className="row" marginTop="10px">
          <Button onClick={() => window.location.reload()}>{frame.reload()}</Button>
        </chakra.p>
      )}
    </main>
  );
}
