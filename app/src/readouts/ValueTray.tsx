import { askReading } from '../api/readingBatcher';
import { useRouter } from 'expo-router';
import { useQuery } from '@tanstack/react-query';
import type { Readout } from '@vivid-beacon/core';
import { useMetricsById } from '../api/catalogue';
import { QueryResult } from '../components/QueryResult';
import { Button } from '../components/Button';
import { ProvenanceFacts } from '../components/ProvenanceTray';
import { Row } from '../components/Row';
import { Tray } from '../components/Tray';
import { Words } from '../components/Words';
import { useBoardFilters } from '../boards/BoardFiltersContext';
import { makingQuery, type ReadoutValue, type ShownReadout } from '@vivid-beacon/core/src/boards';
import { useShown } from '../boards/useShown';
import { useOpenPlace } from './useOpenPlace';
import { usePlaceName } from './usePlaceName';

interface PartTrayProps {
  readonly title: string;
  readonly readout: Readout;
  readonly decimals: number;
  /** null = closed. */
  readonly part: ReadoutValue | null;
  readonly onClose: () => void;
}

const MAX_SHOWN = 40;

/** Provenance of a value, with actions: focus its asset, open its samples. */
export function ValueTray({ title, readout, decimals, part, onClose }: PartTrayProps) {
  const router = useRouter();
  const { shown } = useShown(readout);
  const { byId: metrics } = useMetricsById(part?.metricIds.slice(0, MAX_SHOWN) ?? []);
  const { focus, onFocus } = useBoardFilters();
  const name = part ? (part.name && part.name !== title ? `${title}, ${part.name}` : title) : title;
  const openPlace = useOpenPlace(readout);
  const place = usePlaceName(readout.link);
  const actions = part && (
    <>
      {openPlace && (
        <Button
          variant="primary"
          label={`Open ${place}`}
          onPress={() => {
            onClose();
            openPlace();
          }}
        />
      )}
      {part.assetId && (
        <Button
          label={focus === part.assetId ? 'Release the focus' : 'Focus on this asset'}
          onPress={() => {
            onFocus(part.assetId!);
            onClose();
          }}
        />
      )}
      {part.metricIds.length === 1 && (
        <Button
          variant="quiet"
          label="Open its samples"
          onPress={() => {
            onClose();
            router.push(`/data/metrics/${part.metricIds[0]}`);
          }}
        />
      )}
    </>
  );
  if (!part) return null;
  const count = part.metricIds.length;
  const behind = part.metricIds.slice(0, MAX_SHOWN).flatMap((id) => metrics.get(id) ?? []);
  return (
    <Tray title={`How "${name}" was made`} open onClose={onClose}>
      <GroupMaking shown={shown} part={part} decimals={decimals} />
      {actions}
      <Words as="sectionHead" heading={2}>
        {count === 1 ? 'Metric behind it' : `${count} metrics behind it`}
      </Words>
      {part.within > 0 && (
        <Words as="second">
          {`${part.within} of the same name ${part.within === 1 ? 'lies' : 'lie'} below ${count === 1 ? 'it' : 'them'} and ${part.within === 1 ? 'is' : 'are'} not counted again.`}
        </Words>
      )}
      {behind.map((metric) => (
        <Row
          key={metric.id}
          title={`${metric.name}, ${metric.assetName}`}
          second={metric.plantName}
          onPress={() => {
            onClose();
            router.push(`/data/metrics/${metric.id}`);
          }}
        />
      ))}
      {count > MAX_SHOWN && <Words as="second">{`and ${count - MAX_SHOWN} more`}</Words>}
    </Tray>
  );
}

/** Provenance of a group's value, loaded on demand. */
function GroupMaking({
  shown,
  part,
  decimals,
}: {
  readonly shown: ShownReadout;
  readonly part: ReadoutValue;
  readonly decimals: number;
}) {
  const query = makingQuery(shown, part);
  const answer = useQuery({
    queryKey: ['readings', 'query', query],
    queryFn: ({ signal }) => askReading('query', query!, signal),
    enabled: query !== null,
    retry: false,
  });
  if (query === null) return <Words as="body">No metric of this group has a denominator.</Words>;
  return (
    <QueryResult query={answer} reading="Loading how it was made">
      {({ groups: [group], now, units }) => {
        const { values, coverage, partial, asOf, provenance } = group.measures[0];
        return (
          provenance && (
            <ProvenanceFacts
              reading={{
                value: values[0],
                unit: shown.readout.measures[part.measure].per?.unit ?? units[0],
                coverage: coverage[0],
                partial,
                now,
                asOf,
                provenance,
              }}
              decimals={decimals}
            />
          )
        );
      }}
    </QueryResult>
  );
}
