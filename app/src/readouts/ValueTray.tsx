import { useState } from 'react';
import { useRouter } from 'expo-router';
import { useQuery } from '@tanstack/react-query';
import type { Readout } from '@vivid-beacon/core';
import {
  formOf,
  makingQuery,
  trendOfValue,
  type ReadoutValue,
  type Step,
} from '@vivid-beacon/core/src/boards';
import { useMetricsById } from '../api/catalogue';
import { askReading } from '../api/readingBatcher';
import { usePathsOf } from '../boards/usePathsOf';
import { useShown } from '../boards/useShown';
import { ProvenanceFacts } from '../components/ProvenanceTray';
import { QueryResult } from '../components/QueryResult';
import { Row } from '../components/Row';
import { Tray } from '../components/Tray';
import { Words } from '../components/Words';
import { FlagForm, type FlagSubject } from '../flags/FlagForm';
import { AlarmsAndFlags } from './AlarmsAndFlags';
import { valueEvidence } from './valueEvidence';
import { WaysOn } from './WaysOn';

interface ValueTrayProps {
  readonly title: string;
  readonly readout: Readout;
  readonly decimals: number;
  /** null = closed. */
  readonly part: ReadoutValue | null;
  readonly onStep: (step: Step) => void;
  /** Opens a trend of the value. */
  readonly onTrend: (trend: Readout) => void;
  readonly onClose: () => void;
}

const MAX_SHOWN = 40;

/** How a value was made, the metrics behind it, and the ways on from it. */
export function ValueTray({ part, ...props }: ValueTrayProps) {
  return part && <OpenValue part={part} {...props} />;
}

function OpenValue({
  title,
  readout,
  decimals,
  part,
  onStep,
  onTrend,
  onClose,
}: ValueTrayProps & { readonly part: ReadoutValue }) {
  const router = useRouter();
  const { shown } = useShown(readout);
  const { byId: metrics } = useMetricsById(part.metricIds.slice(0, MAX_SHOWN));
  const paths = usePathsOf(readout, part.group);
  const [subject, setSubject] = useState<FlagSubject | null>(null);
  const [events, setEvents] = useState(false);
  const name = part.name && part.name !== title ? `${title}, ${part.name}` : title;
  const query = makingQuery(shown, part);
  const making = useQuery({
    queryKey: ['readings', 'query', query],
    queryFn: ({ signal }) => askReading('query', query!, signal),
    enabled: query !== null,
    retry: false,
  });
  if (subject) {
    return (
      <Tray title="Flag" open onClose={onClose}>
        <FlagForm subject={subject} onDone={onClose} />
      </Tray>
    );
  }
  const count = part.metricIds.length;
  const behind = part.metricIds.slice(0, MAX_SHOWN).flatMap((id) => metrics.get(id) ?? []);
  const metric = count === 1 ? (behind.at(0) ?? null) : null;
  const made = making.data?.groups.at(0)?.measures[0];
  const time = made?.provenance?.window ?? null;
  const trend = formOf(readout.form).overTime || !paths ? null : trendOfValue(readout, part, paths);
  const flag =
    metric && made?.provenance
      ? () =>
          setSubject({
            title: `Check ${metric.assetName}, ${part.name || title}`.slice(0, 200),
            kind: part.level === 'breach' ? 'breach' : 'remark',
            assetId: metric.assetId,
            metricId: metric.id,
            alarmId: null,
            evidence: valueEvidence(name, part, made.provenance!.window, decimals),
          })
      : null;
  return (
    <Tray title={`How "${name}" was made`} open onClose={onClose}>
      {query === null ? (
        <Words as="body">
          {part.withoutAttribute > 0
            ? `No asset of ${part.withoutAttribute === 1 ? 'its metric' : `its ${part.withoutAttribute} metrics`} has ${readout.measures[part.measure].perAttribute} as a number above 0.`
            : 'No metric of this group has a denominator.'}
        </Words>
      ) : (
        <QueryResult query={making} reading="Loading how it was made">
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
      )}
      <WaysOn
        readout={readout}
        part={part}
        paths={paths}
        metric={metric}
        onStep={onStep}
        onTrend={trend && (() => onTrend(trend))}
        onEvents={time && (() => setEvents(!events))}
        onFlag={flag}
        onClose={onClose}
      />
      {events && time && (
        <AlarmsAndFlags
          metricIds={part.metricIds.slice(0, MAX_SHOWN)}
          metrics={metrics}
          window={time}
          zone={part.zone}
          now={part.now}
          onOpen={(path) => {
            onClose();
            router.push(path);
          }}
        />
      )}
      <Words as="sectionHead" heading={2}>
        {count === 1 ? 'Metric behind it' : `${count} metrics behind it`}
      </Words>
      {part.withoutAttribute > 0 && count > 0 && (
        <Words as="second">
          {`${part.withoutAttribute} more ${part.withoutAttribute === 1 ? 'is' : 'are'} not counted: no asset of ${part.withoutAttribute === 1 ? 'it' : 'theirs'} has ${readout.measures[part.measure].perAttribute} as a number above 0.`}
        </Words>
      )}
      {part.within > 0 && (
        <Words as="second">
          {`${part.within} of the same name ${part.within === 1 ? 'lies' : 'lie'} below ${count === 1 ? 'it' : 'them'} and ${part.within === 1 ? 'is' : 'are'} not counted again.`}
        </Words>
      )}
      {behind.map((each) => (
        <Row
          key={each.id}
          title={`${each.name}, ${each.assetName}`}
          second={each.plantName}
          onPress={() => {
            onClose();
            router.push(`/data/metrics/${each.id}`);
          }}
        />
      ))}
      {count > MAX_SHOWN && <Words as="second">{`and ${count - MAX_SHOWN} more`}</Words>}
    </Tray>
  );
}
