import { View } from 'react-native';
import { formatMoment, type Interval, type Metric } from '@vivid-beacon/core';
import { useFlagsOnTime } from '../api/flags';
import { useAlarmsOnTime } from '../api/queries';
import { QueryResult } from '../components/QueryResult';
import { Row } from '../components/Row';
import { Words } from '../components/Words';

/** Most that are listed of each. */
const MOST = 10;

interface AlarmsAndFlagsProps {
  readonly metricIds: readonly string[];
  readonly metrics: ReadonlyMap<string, Metric>;
  readonly window: Interval;
  readonly zone: string;
  readonly now: number;
  readonly onOpen: (path: `/alarms/${string}` | `/flags/${string}`) => void;
}

/** Alarms raised on metrics in a stretch of time, and flags that touch it; the newest first. */
export function AlarmsAndFlags({ metricIds, metrics, window, zone, now, onOpen }: AlarmsAndFlagsProps) {
  const alarms = useAlarmsOnTime(metricIds, window);
  const flags = useFlagsOnTime(metricIds, window);
  return (
    <View>
      <QueryResult query={alarms} reading="Looking for its alarms">
        {(raised) => (
          <>
            {raised.length === 0 && <Words as="second">No alarm was raised in this time.</Words>}
            {newest(raised, ({ raisedAt }) => raisedAt).map(({ id, metricId, raisedAt }) => (
              <Row
                key={id}
                title={`Alarm, ${formatMoment(raisedAt, zone, now)}`}
                second={metrics.get(metricId)?.name}
                onPress={() => onOpen(`/alarms/${id}`)}
              />
            ))}
            <More of={raised.length} what="alarms" />
          </>
        )}
      </QueryResult>
      <QueryResult query={flags} reading="Looking for its flags">
        {(handed) => (
          <>
            {handed.length === 0 && <Words as="second">No flag is about this time.</Words>}
            {newest(handed, ({ createdAt }) => createdAt).map(({ id, title, createdAt, closedAt }) => (
              <Row
                key={id}
                title={title}
                second={`Flag, ${formatMoment(createdAt, zone, now)}${closedAt === null ? '' : ', closed'}`}
                onPress={() => onOpen(`/flags/${id}`)}
              />
            ))}
            <More of={handed.length} what="flags" />
          </>
        )}
      </QueryResult>
    </View>
  );
}

const newest = <T,>(all: readonly T[], at: (each: T) => number): readonly T[] =>
  [...all].sort((a, b) => at(b) - at(a)).slice(0, MOST);

const More = ({ of, what }: { readonly of: number; readonly what: string }) =>
  of > MOST ? <Words as="second">{`and ${of - MOST} earlier ${what}`}</Words> : null;
