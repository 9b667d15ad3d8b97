import { chakra, Input } from '@chakra-ui/react';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { GUIDES } from '#core/live/guides/index.ts';
import { Page } from '#web/shared/parts/index.ts';
import { guides as say } from '#words/index.ts';
import { introOf, titleOf, wordsOf } from './say.ts';

/** Jobs that people come with, found by plain words. */
export function GuideList() {
  const { rigId } = useParams();
  const [search, setSearch] = useState('');
  const asked = search.toLowerCase().split(/\s+/).filter(Boolean);
  const shown = GUIDES.filter((g) => asked.every((word) => wordsOf(g).toLowerCase().includes(word)));
  return (
    <Page title={say.title()}>
      <Input
        aria-label={say.find()}
        placeholder={say.find()}
        maxWidth="420px"
        value={search}
        onChange={(e) => setSearch(e.target.value)}
      />
      {shown.length === 0 && <p className="quiet">{say.none()}</p>}
      <ul className="guides">
        {shown.map((guide) => (
          <li key={guide.id}>
            <Link to={`/rigs/${rigId}/how/${guide.id}`} className="strong">
              {titleOf(guide)}
            </Link>
            <chakra.p className="quiet small" marginTop="2px">
              {introOf(guide)}
            </chakra.p>
          </li>
        ))}
      </ul>
    </Page>
  );
}
