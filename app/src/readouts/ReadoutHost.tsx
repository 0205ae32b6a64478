import { useMemo, useState, type ComponentType } from 'react';
import { StyleSheet, View } from 'react-native';
import { lowerFirst, type Interval, type Readout, type ReadoutParts } from '@vivid-beacon/core';
import {
  isProblem,
  type ReadoutValue,
  type GroupsData,
  type ReadData,
  type Step,
  formFor,
  isMultiples,
  withMatchingChoices,
} from '@vivid-beacon/core/src/boards';
import { useBoardFilters } from '../boards/BoardFiltersContext';
import { useReadoutData } from '../boards/useReadoutData';
import { Button } from '../components/Button';
import { Loading } from '../components/Loading';
import { Message } from '../components/Message';
import { Words } from '../components/Words';
import { useOnScreen } from '../hooks/useOnScreen';
import { useDeferredOffScreen } from '../hooks/useDeferredOffScreen';
import { useWidth } from '../hooks/useWidth';
import { Tray } from '../components/Tray';
import type { DrawProps } from './drawProps';
import { drawnWindow } from './drawnWindow';
import { MultiplesReadout } from './MultiplesReadout';
import { TrendReadout } from './TrendReadout';
import { ValueTray } from './ValueTray';

const DRAW_TREND = TrendReadout as ComponentType<DrawProps<ReadData>>;

interface ReadoutHostProps {
  readonly readout: Readout;
  readonly title: string;
  readonly draw: ComponentType<DrawProps<ReadData>>;
}

/**
 * Loads and draws a readout, or shows that it is loading, that nothing can be drawn, or its error. The
 * previous drawing stays, faded, until the new one is ready. It can be looked at with other choices (sorted by another
 * column) until it is released; those are not saved.
 */
export function ReadoutHost({ readout: saved, title, draw: Draw }: ReadoutHostProps) {
  const [looked, setLooked] = useState<Looked>({ of: saved, ...AS_SAVED });
  const { choices, path } = looked.of === saved ? looked : AS_SAVED;
  const look = (part: Partial<Looked>): void => setLooked({ of: saved, choices, path, ...part });
  const readout = useMemo(
    () => withMatchingChoices(saved, { ...path.at(-1)?.choices, ...choices }),
    [saved, choices, path],
  );
  const { onKeep } = useBoardFilters();
  const [width, onLayout] = useWidth();
  const [place, inSight] = useOnScreen();
  const [zoomed, setZoomed] = useState<Interval | null>(null);
  const [open, setOpen] = useState<{ readonly part: ReadoutValue; readonly of?: Readout } | null>(null);
  const [trend, setTrend] = useState<Readout | null>(null);
  const form = formFor(readout);
  const { data, error, old, again, shown, metrics } = useReadoutData(form, readout, width, zoomed);
  const props = {
    readout: shown.readout,
    title,
    width,
    metrics,
    onOpen: (part: ReadoutValue, of?: Readout) => setOpen({ part, of }),
    zoomed,
    onZoom: setZoomed,
    onTry: (parts: ReadoutParts) => look({ choices: { ...choices, ...parts } }),
    old,
    unread: old && error !== null,
  };
  const drawn = (
    <>
      <StepPath path={path} onBack={(depth) => look({ path: path.slice(0, depth), choices: {} })} />
      {data && !isProblem(data) ? (
        <View style={old && styles.old}>
          {isMultiples(data) ? (
            <MultiplesReadout {...props} data={data} draw={Draw} />
          ) : (
            <Draw {...props} data={data} />
          )}
        </View>
      ) : error ? (
        <Message
          kind="error"
          title="This could not be loaded"
          text={error.message}
          action={{ label: 'Try again', onPress: again }}
        />
      ) : data ? (
        <Message kind="empty" title={data.problem.title} text={data.problem.text} />
      ) : (
        <Loading what={`Loading the ${lowerFirst(form.label)}`} />
      )}
      {data && !isProblem(data) && old && error && (
        <Message
          kind="error"
          title="The new window could not be loaded"
          text={`${error.message} Still showing ${drawnWindow(data)}.`}
          action={{ label: 'Try again', onPress: again }}
        />
      )}
      {Object.keys(choices).length > 0 && (
        <View style={styles.tried}>
          <Words as="caption">Not as it is saved.</Words>
          <Button variant="quiet" label="Show it as saved" onPress={() => look({ choices: {} })} />
          {onKeep && path.length === 0 && (
            <Button variant="quiet" label="Save it so" onPress={() => onKeep(saved.id, choices)} />
          )}
        </View>
      )}
      <ValueTray
        title={title}
        readout={open?.of ?? shown.readout}
        decimals={data && !isProblem(data) ? decimalsOf(data, open?.part ?? null) : 0}
        part={open?.part ?? null}
        onStep={(step) => look({ path: [...path, step], choices: {} })}
        onTrend={(next) => {
          setOpen(null);
          setTrend(next);
        }}
        onClose={() => setOpen(null)}
      />
      {trend && (
        <Tray title={trend.title ?? title} open onClose={() => setTrend(null)}>
          <ReadoutHost readout={trend} title={trend.title ?? title} draw={DRAW_TREND} />
        </Tray>
      )}
    </>
  );
  const shownNow = useDeferredOffScreen(drawn, inSight);
  return (
    <View ref={place} onLayout={onLayout}>
      {shownNow}
    </View>
  );
}

/** How a readout is looked at where that differs from how it is saved. */
interface Looked {
  readonly of: Readout;
  readonly choices: ReadoutParts;
  /** The steps down to where it is. */
  readonly path: readonly Step[];
}

const AS_SAVED: Pick<Looked, 'choices' | 'path'> = { choices: {}, path: [] };

/** The way down to the parts that are shown; each earlier place leads back. */
function StepPath({ path, onBack }: Pick<Looked, 'path'> & { readonly onBack: (depth: number) => void }) {
  if (path.length === 0) return null;
  return (
    <View style={styles.tried} role="navigation" aria-label="Where its parts are shown">
      <Button variant="quiet" label="All" onPress={() => onBack(0)} />
      {path.map(({ label }, i) =>
        i === path.length - 1 ? (
          <Words key={i} as="bodyStrong">
            {`› ${label}`}
          </Words>
        ) : (
          <Button key={i} variant="quiet" label={`› ${label}`} onPress={() => onBack(i + 1)} />
        ),
      )}
    </View>
  );
}

/** Decimals of a value: those of its column, where there are several. */
function decimalsOf(data: ReadData, value: ReadoutValue | null): number {
  const drawn = isMultiples(data) ? data.copies[0].data : data;
  const columns = (drawn as Partial<GroupsData>).columns;
  return (value && columns?.[value.measure]?.decimals) ?? data.decimals;
}

const styles = StyleSheet.create({
  old: { opacity: 0.6 },
  tried: { flexDirection: 'row', alignItems: 'center', gap: 8, flexWrap: 'wrap' },
});
