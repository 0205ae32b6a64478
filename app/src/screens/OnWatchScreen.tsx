import { useState } from 'react';
import { useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import { formatMoment, indicatorTotal, openFlags, type Watch } from '@vivid-beacon/core';
import { usePerson } from '../api/session';
import { useFirstSteps } from '../api/firstSteps';
import { mayBuild } from '../api/mayAct';
import { useWatch } from '../api/queries';
import { Coast } from '../charts/Coast';
import { QueryResult } from '../components/QueryResult';
import { IconButton } from '../components/IconButton';
import { HandoverIcon, PersonIcon } from '../components/icons';
import { Page } from '../components/Page';
import { ThemeToggle } from '../components/ThemeToggle';
import { Words } from '../components/Words';
import { useLayout } from '../hooks/useLayout';
import { usePalette } from '../theme/useTheme';
import { coastLights } from './coastLights';
import { FirstStepsSection, isSetUp } from './watch/FirstStepsSection';
import { WatchFlags } from './watch/WatchFlags';
import { WatchIndicators } from './watch/WatchIndicators';
import { WatchNeeds } from './watch/WatchNeeds';
import { WatchSilent } from './watch/WatchSilent';

/** The first screen: what needs a person now. */
export function OnWatchScreen() {
  const watch = useWatch();
  const router = useRouter();
  const person = usePerson();
  const zone = watch.data?.plants[0]?.zone ?? 'UTC';
  const moment = watch.data ? formatMoment(watch.data.now, zone) : '';
  return (
    <Page
      title="On watch"
      under={[moment, person?.name].filter(Boolean).join(' · ')}
      full
      tools={
        <>
          <IconButton icon={HandoverIcon} name="Shift handover" onPress={() => router.push('/handover')} />
          <ThemeToggle />
          <IconButton icon={PersonIcon} name="Your account" onPress={() => router.push('/account')} />
        </>
      }
    >
      <QueryResult query={watch} reading="Loading what needs a person">
        {(data) => <WatchSheet watch={data} />}
      </QueryResult>
    </Page>
  );
}

/** Number of silent feeds in a plant; null = in all. */
function silentIn({ silent }: Watch, plant: string | null): number {
  return plant === null
    ? Object.values(silent.count).reduce((sum, n) => sum + n, 0)
    : (silent.count[plant] ?? 0);
}

function WatchSheet({ watch }: { readonly watch: Watch }) {
  const palette = usePalette();
  const { wide } = useLayout();
  const [plant, setPlant] = useState<string | null>(null);
  const here = <T extends { plantId: string }>(rows: readonly T[]): T[] =>
    rows.filter(({ plantId }) => plant === null || plantId === plant);
  const steps = useFirstSteps().data;
  const build = mayBuild(usePerson());
  const begins = steps !== undefined && !isSetUp(steps);
  const divider = wide && { borderLeftWidth: 1, borderLeftColor: palette.line };
  return (
    <>
      {watch.plants.length > 0 && (
        <View style={wide ? styles.coastWide : styles.coast}>
          <Coast lights={coastLights(watch)} chosen={plant} onChoose={setPlant} />
        </View>
      )}
      {begins && build && !steps.away && <FirstStepsSection steps={steps} />}
      {begins && !build && (
        <Words as="body" colour={palette.ink2} style={styles.begins}>
          Not everything has been set up yet: an analyst adds plants, data, boards, target bands and alarm
          rules.
        </Words>
      )}
      <View style={wide && styles.columns}>
        <View style={wide && [styles.column, styles.first]}>
          <WatchNeeds watch={watch} plant={plant} watched={steps?.rule ?? true} />
        </View>
        <View style={wide && [styles.column, divider]}>
          <WatchFlags
            flags={here(watch.flags)}
            count={openFlags(watch.flagCounts, plant).later}
            now={watch.now}
          />
          <WatchSilent
            feeds={here(watch.silent.feeds)}
            count={silentIn(watch, plant)}
            heard={steps?.data ?? true}
          />
        </View>
        <View style={wide && [styles.column, divider]}>
          <WatchIndicators
            indicators={here(watch.indicators)}
            count={indicatorTotal(watch.indicatorCounts, plant)}
            plants={watch.plants}
          />
        </View>
      </View>
    </>
  );
}

const styles = StyleSheet.create({
  begins: { paddingVertical: 12 },
  coast: { marginHorizontal: -20 },
  coastWide: { marginHorizontal: -24 },
  columns: { flexDirection: 'row' },
  first: { paddingLeft: 0 },
  column: { flex: 1, paddingHorizontal: 20, minWidth: 0 },
});
