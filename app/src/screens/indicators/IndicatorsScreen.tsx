import { useRouter } from 'expo-router';
import { SEVERITY, windowWords, type IndicatorReading } from '@vivid-beacon/core';
import { useIndicators } from '../../api/indicators';
import { mayBuild } from '../../api/mayAct';
import { usePerson } from '../../api/session';
import { Answer } from '../../components/Answer';
import { Button } from '../../components/Button';
import { PlusIcon } from '../../components/icons';
import { LampWord } from '../../components/LampWord';
import { Notice } from '../../components/Notice';
import { Page } from '../../components/Page';
import { Row } from '../../components/Row';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';
import { shownValue } from './indicatorWords';

/** Every indicator with its level now, the worst first. */
export function IndicatorsScreen() {
  const palette = usePalette();
  const router = useRouter();
  const query = useIndicators();
  const build = mayBuild(usePerson());
  return (
    <Page
      title="Indicators"
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
      <Answer query={query} reading="Reading indicators">
        {(rows) =>
          rows.length === 0 ? (
            <Notice
              kind="empty"
              title="No indicators yet"
              text="An indicator is a measure with a target band that counts as one thing on every board."
            />
          ) : (
            worstFirst(rows).map((row, i) => (
              <Row
                key={row.id}
                title={row.name}
                second={secondLine(row)}
                left={<LampWord level={row.reading.level} />}
                right={
                  <Words as="figure">{shownValue(row.reading.value, row.reading.unit, row.definition)}</Words>
                }
                onPress={() => router.push(`/indicators/${row.id}`)}
                last={i === rows.length - 1}
              />
            ))
          )
        }
      </Answer>
    </Page>
  );
}

function worstFirst(rows: readonly IndicatorReading[]): IndicatorReading[] {
  return [...rows].sort(
    (a, b) => SEVERITY[a.reading.level] - SEVERITY[b.reading.level] || a.name.localeCompare(b.name),
  );
}

function secondLine({ assetName, window, target, reading, definition }: IndicatorReading): string {
  const goal = target === null ? '' : `, target ${shownValue(target, reading.unit, definition)}`;
  return `${assetName}, ${windowWords(window).replace(/^the /, '')}${goal}`;
}
