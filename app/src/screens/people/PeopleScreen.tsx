import { useState } from 'react';
import { usePathname, useRouter } from 'expo-router';
import { formatNumber, type Account } from '@vivid-beacon/core';
import { useAssetsById } from '../../api/catalogue';
import { itemsOf } from '../../api/pages';
import { useAccountPages } from '../../api/people';
import { Button } from '../../components/Button';
import { LongList } from '../../components/LongList';
import { Page } from '../../components/Page';
import { Row } from '../../components/Row';
import { SearchField, useSearch } from '../../components/SearchField';
import { WordRow } from '../../components/WordRow';
import { useNow } from '../../hooks/useNow';
import { rightsWords } from './rightsWords';
import { accountStateWords } from './accountStateWords';

const STATES = [
  { value: 'all', label: 'All' },
  { value: 'active', label: 'Active' },
  { value: 'invited', label: 'Invited' },
  { value: 'disabled', label: 'Disabled' },
] as const;

/** Everybody with an account, and what they may do where. */
export function PeopleScreen() {
  const router = useRouter();
  const path = usePathname();
  const search = useSearch();
  const now = useNow(60_000);
  const [state, setState] = useState<(typeof STATES)[number]['value']>('all');
  const pages = useAccountPages(search.settled, state === 'all' ? undefined : state);
  const plants = itemsOf(pages.data).flatMap(({ rights }) => Object.keys(rights.plants));
  const { byId } = useAssetsById(plants);
  const total = pages.data?.pages[0].total;
  return (
    <Page
      title="People"
      under={
        total === undefined ? undefined : `${formatNumber(total, 0)} ${total === 1 ? 'account' : 'accounts'}`
      }
      onBack={() => router.navigate('/account')}
      backName="Back to your account"
      tools={<Button label="Invite" name="Invite somebody" onPress={() => router.push('/people/new')} />}
    >
      <SearchField label="Search people" placeholder="Search by name or address" search={search} />
      <WordRow name="State of the account" options={STATES} chosen={state} onChoose={setState} />
      <LongList pages={pages} reading="Loading people" empty="There is nobody." searched={search.settled}>
        {(account: Account, last) => (
          <Row
            key={account.id}
            title={account.name}
            second={`${rightsWords(account.rights, (id) => byId.get(id)?.name)} · ${accountStateWords(account, now)}`}
            onPress={() => router.push(`/people/${account.id}`)}
            chosen={path === `/people/${account.id}`}
            last={last}
          />
        )}
      </LongList>
    </Page>
  );
}
