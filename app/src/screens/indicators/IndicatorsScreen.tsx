import { usePathname, useRouter } from 'expo-router';
import { windowWords, type IndicatorReading } from '@vivid-beacon/core';
import { useIndicatorPages } from '../../api/indicators';
import { mayBuild } from '../../api/mayAct';
import { usePerson } from '../../api/session';
import { Button } from '../../components/Button';
import { PlusIcon } from '../../components/icons';
import { LongList } from '../../components/LongList';
import { ReadingLamp } from '../../components/ReadingLamp';
import { Message } from '../../components/Message';
import { Page } from '../../components/Page';
import { SearchField, useSearch } from '../../components/SearchField';
import { Row } from '../../components/Row';
import { Words } from '../../components/Words';
import { DefinitionsOut } from '../definitions/DefinitionsOut';
import { usePalette } from '../../theme/useTheme';
import { shownValue } from './indicatorWords';

/** Every indicator with its level now, the worst first. */
export function IndicatorsScreen() {
  const palette = usePalette();
  const router = useRouter();
  const path = usePathname();
  const search = useSearch();
  const pages = useIndicatorPages(search.settled);
  const build = mayBuild(usePerson());
  return (
    <Page
      title="Indicators"
      term="indicator"
      under="Defined once, used everywhere"
      onBack={() => router.navigate('/')}
      backName="Back to On watch"
      tools={
        build && (
          <Button
            label="New"
            name="New indicator"
            icon={<PlusIcon size={20} color={palette.ink} strokeWidth={1.75} />}
            onPress={() => router.push('/indicators/new')}
          />
        )
      }
    >
      <SearchField label="Search indicators" placeholder="Search by name, asset or plant" search={search} />
      <LongList
        pages={pages}
        reading="Loading indicators"
        searched={search.settled}
        empty={
          <Message
            kind="empty"
            title="No indicators yet"
            text="An indicator is a measure with a target band that counts as one thing on every board."
            action={
              build ? { label: 'New indicator', onPress: () => router.push('/indicators/new') } : undefined
            }
          />
        }
      >
        {(row: IndicatorReading, last) => (
          <Row
            key={row.id}
            title={row.name}
            second={secondLine(row)}
            left={<ReadingLamp reading={row.reading} judged={row.band !== null} />}
            right={
              <Words as="figure">{shownValue(row.reading.value, row.reading.unit, row.definition)}</Words>
            }
            onPress={() => router.push(`/indicators/${row.id}`)}
            chosen={path === `/indicators/${row.id}`}
            last={last}
          />
        )}
      </LongList>
      <DefinitionsOut
        what="Indicators"
        file="indicators.json"
        build={build}
        write={async () => (await import('../../api/files')).indicatorsAsFile(search.settled)}
      />
    </Page>
  );
}

function secondLine({ place, window, target, reading, definition }: IndicatorReading): string {
  const goal = target === null ? '' : `, target ${shownValue(target, reading.unit, definition)}`;
  return `${place}, ${windowWords(window).replace(/^the /, '')}${goal}`;
}
