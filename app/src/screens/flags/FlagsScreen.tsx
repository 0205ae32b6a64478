import { useState } from 'react';
import { useRouter } from 'expo-router';
import { formatNumber, type Flag } from '@vivid-beacon/core';
import { useFlagPages, type FlagSearch } from '../../api/flags';
import { usePerson } from '../../api/session';
import { Button } from '../../components/Button';
import { LongList } from '../../components/LongList';
import { Page } from '../../components/Page';
import { SearchField, useSearch } from '../../components/SearchField';
import { Section } from '../../components/Section';
import { Tray } from '../../components/Tray';
import { WordRow } from '../../components/WordRow';
import { useNow } from '../../hooks/useNow';
import { mayEverywhere } from '../../api/mayAct';
import { CauseList } from './CauseList';
import { FlagRow } from './FlagRow';

const LISTS = [
  { value: 'mine', label: 'Mine' },
  { value: 'given', label: 'Given out by me' },
  { value: 'all', label: 'Everybody’s' },
  { value: 'closed', label: 'Closed' },
] as const;
type List = (typeof LISTS)[number]['value'];

const NONE: Readonly<Record<List, string>> = {
  mine: 'No flag waits for you.',
  given: 'No flag you handed out is open.',
  all: 'No open flags.',
  closed: 'No flag has been closed yet.',
};

const ASKS: Readonly<Record<List, FlagSearch>> = {
  mine: { state: 'open', list: 'mine' },
  given: { state: 'open', list: 'given' },
  all: { state: 'open', list: 'all' },
  closed: { state: 'closed', list: 'all' },
};

/** Flags: mine, handed out by me, everybody's, and closed. */
export function FlagsScreen() {
  const router = useRouter();
  const person = usePerson();
  const now = useNow(60_000);
  const [list, setList] = useState<List>('mine');
  const [causes, setCauses] = useState(false);
  const search = useSearch();
  const pages = useFlagPages({ ...ASKS[list], search: search.settled });
  const total = pages.data?.pages[0].total;
  const within = ({ from, to, closedAt }: Flag): boolean =>
    (closedAt !== null) === (list === 'closed') &&
    (list === 'mine' ? to.id === person?.id : list === 'given' ? from.id === person?.id : true);
  return (
    <Page
      title="Flags"
      term="flag"
      onBack={() => router.navigate('/')}
      backName="Back to On watch"
      tools={mayEverywhere(person, 'analyst') && <Button label="Causes" onPress={() => setCauses(true)} />}
    >
      <WordRow name="Which flags" options={LISTS} chosen={list} onChoose={setList} />
      <SearchField
        label="Search flags"
        placeholder="Search by title, taker, asset or plant"
        search={search}
      />
      <Section
        title={list === 'closed' ? 'Closed' : 'Open'}
        aside={total === undefined ? '' : formatNumber(total, 0)}
      >
        <LongList
          pages={pages}
          reading="Loading flags"
          searched={search.settled}
          empty={NONE[list]}
          fits={within}
        >
          {(flag: Flag, last) => <FlagRow key={flag.id} flag={flag} now={now} last={last} />}
        </LongList>
      </Section>
      <Tray title="Causes" open={causes} onClose={() => setCauses(false)}>
        {causes && <CauseList />}
      </Tray>
    </Page>
  );
}
