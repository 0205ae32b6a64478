import { useState } from 'react';
import { useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import {
  addsUp,
  BUCKET_WORDS,
  hasMonths,
  displayDivisor,
  displayUnit,
  dividedBand,
  formatMoment,
  DEFAULT_RULES,
  type IndicatorReading,
  type IndicatorVersion,
  type PeriodTarget,
  type JudgedPeriod,
} from '@vivid-beacon/core';
import { useCalendar } from '../../api/data';
import { useIndicator, useIndicatorPast, useRemoveIndicator, useSaveTargets } from '../../api/indicators';
import { mayBuild } from '../../api/mayAct';
import { useMetricsById } from '../../api/catalogue';
import { usePerson } from '../../api/session';
import { StraightGauge } from '../../charts/StraightGauge';
import { QueryResult } from '../../components/QueryResult';
import { Button } from '../../components/Button';
import { Fact } from '../../components/Fact';
import { ReadingLamp } from '../../components/ReadingLamp';
import { NumberButton } from '../../components/NumberButton';
import { Page } from '../../components/Page';
import { PeriodValues, type PeriodValuesProps } from '../../components/PeriodValues';
import { ProvenanceTray } from '../../components/ProvenanceTray';
import { RemoveThing } from '../../components/RemoveThing';
import { Row } from '../../components/Row';
import { Section } from '../../components/Section';
import { Words } from '../../components/Words';
import { useNow } from '../../hooks/useNow';
import { useWidth } from '../../hooks/useWidth';
import { usePalette } from '../../theme/useTheme';
import {
  indicatorChangeWords,
  judgeWords,
  measureWords,
  referenceWords,
  shownNumber,
  shownValue,
  targetWords,
  whenWords,
} from './indicatorWords';
import { PastColumns } from './PastColumns';
import { PastList } from './PastList';
import { PeriodTray } from './PeriodTray';

const PERIODS = 30;

/** One indicator: its value against target and reference, its past, its targets, and every definition it has had. */
export function IndicatorScreen({
  indicatorId,
  from = '/indicators',
}: {
  readonly indicatorId: string;
  /** The list it was opened from. */
  readonly from?: '/indicators' | '/losses';
}) {
  const router = useRouter();
  const query = useIndicator(indicatorId);
  const build = mayBuild(usePerson(), query.data?.indicator.plantId);
  const remove = useRemoveIndicator();
  return (
    <Page
      title={query.data?.indicator.name ?? 'Indicator'}
      under={query.data?.indicator.place}
      onBack={() => router.navigate(from)}
      backName={from === '/losses' ? 'Back to losses' : 'Back to indicators'}
      tools={
        build && (
          <Button
            label="Change"
            name="Change the definition"
            onPress={() => router.push(`/indicators/${indicatorId}/edit`)}
          />
        )
      }
    >
      <QueryResult query={query} reading="Loading the indicator">
        {({ indicator, versions, targets }) => (
          <>
            <Now indicator={indicator} />
            <Past indicator={indicator} versions={versions} />
            {indicator.definition.target.kind === 'periods' && (
              <Targets indicator={indicator} targets={targets} mayEdit={build} />
            )}
            <Definition indicator={indicator} />
            <Versions versions={versions} indicator={indicator} />
          </>
        )}
      </QueryResult>
      {build && query.data && (
        <RemoveThing
          what="indicator"
          id={indicatorId}
          name={query.data.indicator.name}
          words="It leaves every list, and rules on it are withdrawn. Its definitions and targets are kept: it can be restored under Data, Removed."
          removal={remove}
          onGone={() => router.navigate('/indicators')}
        />
      )}
    </Page>
  );
}

function Now({ indicator }: { readonly indicator: IndicatorReading }) {
  const palette = usePalette();
  const [width, onLayout] = useWidth();
  const [open, setOpen] = useState(false);
  const { name, reading, definition, target, band } = indicator;
  const by = displayDivisor(definition.display);
  const divide = (value: number | null): number | null => (value === null ? null : value / by);
  return (
    <View style={styles.now}>
      <View style={styles.value}>
        <ReadingLamp reading={reading} judged={band !== null} />
        <NumberButton
          text={shownNumber(reading.value, definition)}
          unit={displayUnit(reading.unit, definition.display)}
          name={`${name}. How it was made`}
          onPress={() => setOpen(true)}
        />
      </View>
      <View onLayout={onLayout}>
        <StraightGauge
          width={width}
          value={divide(reading.value)}
          level={reading.level}
          band={dividedBand(band, by)}
          reference={divide(reading.previous)}
          decimals={definition.decimals}
        />
      </View>
      <Words as="body">
        {target === null
          ? 'No target holds now.'
          : `Target ${shownValue(target, reading.unit, definition)}${reading.partial ? ', as far as the window has passed' : ''}.`}
      </Words>
      <Words as="body" colour={palette.ink2}>
        {indicatorChangeWords(indicator)}
      </Words>
      <ProvenanceTray
        title={name}
        reading={reading}
        decimals={definition.decimals}
        open={open}
        onClose={() => setOpen(false)}
      />
    </View>
  );
}

function Past({
  indicator,
  versions,
}: {
  readonly indicator: IndicatorReading;
  readonly versions: readonly IndicatorVersion[];
}) {
  const [open, setOpen] = useState<JudgedPeriod | null>(null);
  const query = useIndicatorPast(indicator.id, PERIODS);
  const { definition, reading } = indicator;
  return (
    <Section title="Past" aside={query.data ? `by ${query.data.bucket}` : ''}>
      <QueryResult query={query} reading="Loading the past">
        {(past) => (
          <>
            <PastColumns past={past} name={indicator.name} display={definition.display} />
            <PastList
              past={past}
              unit={reading.unit}
              format={definition}
              version={indicator.version}
              onOpen={setOpen}
            />
            <PeriodTray
              indicator={indicator}
              versions={versions}
              past={past}
              period={open}
              onClose={() => setOpen(null)}
            />
          </>
        )}
      </QueryResult>
    </Section>
  );
}

function Targets({
  indicator,
  targets,
  mayEdit,
}: {
  readonly indicator: IndicatorReading;
  readonly targets: readonly PeriodTarget[];
  readonly mayEdit: boolean;
}) {
  const palette = usePalette();
  const save = useSaveTargets();
  const rules = useCalendar(indicator.plantId).data ?? DEFAULT_RULES;
  const { definition, reading } = indicator;
  if (definition.target.kind !== 'periods') return null;
  const { period } = definition.target;
  const word = definition.display === 'units' ? reading.unit : `${definition.display}`;
  const entry = {
    zone: reading.provenance.zone,
    rules,
    unit: word,
    decimals: definition.decimals,
    divisor: displayDivisor(definition.display),
    mayEdit,
    saving: save.isPending,
    error: save.error,
  };
  const saved =
    (month: boolean): PeriodValuesProps['onSave'] =>
    (values, done) =>
      save.mutate(
        { id: indicator.id, values: values.map((each) => ({ ...each, month })) },
        { onSuccess: done },
      );
  return (
    <Section
      title="Targets"
      aside={`in ${[word, definition.display === 'units' ? '' : reading.unit].filter(Boolean).join(' ')}`}
    >
      <PeriodValues
        {...entry}
        values={targets.filter(({ month }) => !month)}
        period={period}
        onSave={saved(false)}
      />
      {hasMonths(period) && (
        <>
          <Words as="bodyStrong">Single months set otherwise</Words>
          <Words as="second" colour={palette.ink2}>
            {addsUp(definition.measure)
              ? `The ${BUCKET_WORDS[period]} keeps its whole: what these months leave is shared by the time between them.`
              : 'In these months this target holds instead.'}
          </Words>
          <PeriodValues
            {...entry}
            values={targets.filter(({ month }) => month)}
            period="month"
            onSave={saved(true)}
          />
        </>
      )}
    </Section>
  );
}

function Definition({ indicator }: { readonly indicator: IndicatorReading }) {
  const router = useRouter();
  const { definition, reading, ownerName } = indicator;
  const { byId: metrics } = useMetricsById([definition.measure.metricId, definition.measure.per?.metricId]);
  const { unit } = reading;
  return (
    <Section title="Definition" aside={`version ${indicator.version}`}>
      {definition.description !== '' && <Words as="body">{definition.description}</Words>}
      <Fact name="Measure" text={measureWords(definition, (id) => metrics.get(id))} />
      <Fact name="Window" text={whenWords(definition)} />
      <Fact name="Band" text={judgeWords(definition.judge, unit, definition.decimals)} />
      <Fact name="Target" text={targetWords(definition.target, unit, definition)} />
      <Fact name="Compared" text={`with ${referenceWords(definition.reference, unit, definition)}`} />
      <Fact name="Owner" text={ownerName ?? 'no owner'} />
      {definition.boardId !== null && (
        <Button
          variant="quiet"
          label="Open its board"
          onPress={() => router.push(`/boards/${definition.boardId!}`)}
        />
      )}
    </Section>
  );
}

function Versions({
  versions,
  indicator,
}: {
  readonly versions: readonly IndicatorVersion[];
  readonly indicator: IndicatorReading;
}) {
  const now = useNow(60_000);
  const { unit, provenance } = indicator.reading;
  const { zone } = provenance;
  return (
    <Section title="Earlier definitions" aside={String(versions.length - 1)} closed={false}>
      {versions.slice(1).map(({ version, validFrom, by, definition }, i) => (
        <Row
          key={version}
          title={`Version ${version}: ${judgeWords(definition.judge, unit, definition.decimals)}`}
          second={[
            validFrom === 0 ? 'from the beginning' : `from ${formatMoment(validFrom, zone, now)}`,
            `target ${targetWords(definition.target, unit, definition)}`,
            by,
          ]
            .filter(Boolean)
            .join(', ')}
          last={i === versions.length - 2}
        />
      ))}
      {versions.length === 1 && <Words as="body">Not changed since it was created.</Words>}
    </Section>
  );
}

const styles = StyleSheet.create({
  now: { gap: 6, paddingVertical: 8 },
  value: { flexDirection: 'row', alignItems: 'center', gap: 12 },
});
