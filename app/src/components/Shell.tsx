import { Link, Slot, usePathname, type Href } from 'expo-router';
import type { ComponentType } from 'react';
import { StyleSheet, View } from 'react-native';
import { useWaitingAlarms } from '../api/queries';
import { useLayout } from '../hooks/useLayout';
import { useStartScreen } from '../hooks/useStartScreen';
import { useConnectionStore } from '../stores/connectionStore';
import { usePalette } from '../theme/useTheme';
import { AlarmIcon, BoardIcon, DataIcon, LossIcon, WatchIcon } from './icons';
import { OfflineStrip } from './OfflineStrip';
import { RightsStrip } from './RightsStrip';
import { UndoStrip } from './UndoStrip';
import { Words } from './Words';

interface Destination {
  readonly label: string;
  readonly href: Href;
  readonly icon: ComponentType<{ size?: number; color?: string; strokeWidth?: number }>;
  readonly holds: (path: string) => boolean;
}

const DESTINATIONS: readonly Destination[] = [
  {
    label: 'On watch',
    href: '/',
    icon: WatchIcon,
    holds: (path) =>
      path === '/' ||
      path.startsWith('/flags') ||
      path.startsWith('/handover') ||
      path.startsWith('/account') ||
      path.startsWith('/people') ||
      path.startsWith('/trail') ||
      path.startsWith('/indicators'),
  },
  { label: 'Boards', href: '/boards', icon: BoardIcon, holds: (path) => path.startsWith('/boards') },
  {
    label: 'Alarms',
    href: '/alarms',
    icon: AlarmIcon,
    holds: (path) => path.startsWith('/alarms') || path === '/from-file',
  },
  { label: 'Losses', href: '/losses', icon: LossIcon, holds: (path) => path.startsWith('/losses') },
  { label: 'Data', href: '/data', icon: DataIcon, holds: (path) => path.startsWith('/data') },
];

/** Pages that bring a dock of their own instead of the destinations, on the phone. */
const OWN_DOCK = [
  /^\/alarms\/(?!health|notices)[^/]+/,
  /\/readouts\//,
  /^\/flags\/[^/]+/,
  /^\/indicators\/(new|[^/]+\/edit)/,
  /^\/data\/intake/,
  /^\/data\/derived/,
];

/** The sheet with its five destinations: a bar at the thumb on the phone, a thumb index at the right when wide. */
export function Shell() {
  const palette = usePalette();
  const { wide, low } = useLayout();
  const path = usePathname();
  useStartScreen();
  const connected = useConnectionStore((state) => state.connected);
  const waiting = useWaitingAlarms().data?.count ?? 0;
  const hideBar = !wide && OWN_DOCK.some((pattern) => pattern.test(path));
  return (
    <View style={[styles.ground, wide && styles.groundWide, { backgroundColor: palette.ground }]}>
      <View
        style={[
          styles.sheet,
          wide && styles.sheetWide,
          { backgroundColor: palette.sheet, borderColor: palette.ink },
        ]}
      >
        {!connected && <OfflineStrip />}
        <RightsStrip />
        <Slot />
        <UndoStrip />
      </View>
      {!hideBar && (
        <View
          role="navigation"
          aria-label="Destinations"
          style={[wide ? styles.index : low ? styles.barLow : styles.bar, { borderColor: palette.ink }]}
        >
          {DESTINATIONS.map((each) => (
            <Tab
              key={each.label}
              destination={each}
              chosen={each.holds(path)}
              count={each.label === 'Alarms' ? waiting : 0}
              wide={wide}
              low={low}
            />
          ))}
        </View>
      )}
    </View>
  );
}

interface TabProps {
  readonly destination: Destination;
  readonly chosen: boolean;
  readonly count: number;
  readonly wide: boolean;
  readonly low: boolean;
}

function Tab({ destination: { label, href, icon: Icon }, chosen, count, wide, low }: TabProps) {
  const palette = usePalette();
  const paper = { backgroundColor: palette.sheet, borderColor: palette.ink };
  return (
    <Link href={href} asChild>
      <View
        // The link's own element; React Native's types know no href.
        {...({ 'aria-current': chosen ? 'page' : undefined } as object)}
        aria-label={count > 0 ? `${label}, ${count} not acknowledged` : label}
        // One object: the link merges styles by spreading them.
        style={StyleSheet.flatten([
          wide ? (low ? styles.tabWideLow : styles.tabWide) : styles.tab,
          chosen && paper,
          chosen && (wide ? styles.chosenWide : styles.chosen),
        ])}
      >
        <View>
          <Icon size={22} color={palette.ink} strokeWidth={1.75} />
          {count > 0 && (
            <View style={[styles.badge, { backgroundColor: palette.breach }]}>
              <Words as="caption" colour={palette.sheet}>
                {String(count)}
              </Words>
            </View>
          )}
        </View>
        {/* Where there is no room for words the icon stands alone; the link bears its name. */}
        {!low && (
          <View style={wide && styles.turned}>
            <Words
              as={chosen ? 'bodyStrong' : 'second'}
              colour={chosen ? palette.ink : palette.ink2}
              lines={1}
            >
              {label}
            </Words>
          </View>
        )}
      </View>
    </Link>
  );
}

const styles = StyleSheet.create({
  ground: { flex: 1, flexDirection: 'column' },
  groundWide: { flexDirection: 'row', padding: 12, paddingRight: 0 },
  sheet: { flex: 1, minHeight: 0, minWidth: 0 },
  sheetWide: { borderWidth: 1.5 },
  bar: { height: 66, flexDirection: 'row', borderTopWidth: 1.5, paddingHorizontal: 6 },
  barLow: { height: 44, flexDirection: 'row', borderTopWidth: 1.5, paddingHorizontal: 6 },
  tab: {
    flex: 1,
    alignItems: 'center',
    justifyContent: 'center',
    gap: 2,
    marginTop: -1.5,
    borderWidth: 1.5,
    borderTopWidth: 0,
    borderColor: 'transparent',
  },
  chosen: { borderBottomLeftRadius: 13, borderBottomRightRadius: 13, marginBottom: 6 },
  index: { width: 58, paddingTop: 56, gap: 10 },
  tabWideLow: {
    height: 56,
    width: 54,
    alignItems: 'center',
    justifyContent: 'center',
    marginLeft: -1.5,
    borderWidth: 1.5,
    borderLeftWidth: 0,
    borderColor: 'transparent',
  },
  tabWide: {
    height: 112,
    width: 54,
    alignItems: 'center',
    paddingTop: 12,
    gap: 8,
    marginLeft: -1.5,
    borderWidth: 1.5,
    borderLeftWidth: 0,
    borderColor: 'transparent',
  },
  chosenWide: { borderTopRightRadius: 13, borderBottomRightRadius: 13 },
  turned: {
    transform: [{ rotate: '90deg' }],
    width: 80,
    height: 60,
    alignItems: 'center',
    justifyContent: 'center',
  },
  badge: {
    position: 'absolute',
    top: -8,
    right: -14,
    minWidth: 20,
    height: 20,
    borderRadius: 10,
    alignItems: 'center',
    justifyContent: 'center',
    paddingHorizontal: 4,
  },
});
