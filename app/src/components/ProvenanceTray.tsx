import type { ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import {
  formatMoment,
  formatNumber,
  formatWindow,
  type ProvenancePart,
  type Reading,
} from '@vivid-beacon/core';
import { Fact } from './Fact';
import { Rule } from './Rule';
import { Tray } from './Tray';
import { Words } from './Words';

interface ProvenanceTrayProps {
  readonly title: string;
  readonly reading: Reading;
  readonly decimals: number;
  readonly open: boolean;
  readonly onClose: () => void;
  /** What can be done from here. */
  readonly children?: ReactNode;
}

/** So many metrics are shown with their sources; of more it is said how many there are. */
const MAX_PARTS = 40;

/** How a number was made: formula, window in local time, samples, coverage, and where they came from. */
export function ProvenanceTray({ title, reading, decimals, open, onClose, children }: ProvenanceTrayProps) {
  return (
    <Tray title={`How "${title}" was made`} open={open} onClose={onClose}>
      <ProvenanceFacts reading={reading} decimals={decimals} />
      {children}
    </Tray>
  );
}

/** The same without the tray. */
export function ProvenanceFacts({
  reading,
  decimals,
}: {
  readonly reading: Pick<Reading, 'value' | 'unit' | 'coverage' | 'partial' | 'asOf' | 'now' | 'provenance'>;
  readonly decimals: number;
}) {
  const { provenance, now } = reading;
  const { window, zone } = provenance;
  const low = reading.coverage < provenance.minimumCoverage;
  return (
    <>
      <Fact
        name="Value"
        text={reading.value === null ? 'none' : `${formatNumber(reading.value, decimals)} ${reading.unit}`}
      />
      {reading.value !== null && (
        <Fact name="Unrounded" text={`${String(reading.value).replace('-', '\u2212')} ${reading.unit}`} />
      )}
      <Fact name="Formula" text={provenance.formula} />
      {provenance.dividedBy && (
        <Fact name={provenance.dividedBy.name} text={dividedByWords(provenance.dividedBy)} />
      )}
      <Fact
        name="Window"
        text={`${formatWindow(window.start, window.end, zone, now)} (${zone})${reading.partial ? '. Unfinished: only what has passed is counted.' : ''}`}
      />
      <Fact
        name="Coverage"
        text={`${formatNumber(reading.coverage * 100, 1)} % of the time that has passed${low ? `, under the ${provenance.minimumCoverage * 100} % a level needs` : ''}`}
      />
      {provenance.shared !== null && (
        <Fact
          name="Counted"
          text={`the ${formatNumber(provenance.shared * 100, 1)} % of the time in which both sides have data; the parts below are of that time`}
        />
      )}
      <Fact name="As of" text={reading.asOf === null ? 'no sample' : formatMoment(reading.asOf, zone, now)} />
      {provenance.parts.slice(0, MAX_PARTS).map((part) => (
        <Part
          key={`${part.metricId}-${part.summary}`}
          part={part}
          now={now}
          zone={zone}
          decimals={decimals}
        />
      ))}
      {provenance.parts.length > MAX_PARTS && (
        <Words as="second">{`and ${formatNumber(provenance.parts.length - MAX_PARTS, 0)} more metrics`}</Words>
      )}
    </>
  );
}

const holderNumber = (value: number): string => formatNumber(value, Number.isInteger(value) ? 0 : 2);

/** "5,450: Quayside 4,200, Upper Weir 1,250", and what does not count. */
function dividedByWords({
  total,
  holders,
  leftOut,
}: NonNullable<Reading['provenance']['dividedBy']>): string {
  const named = holders.slice(0, MAX_PARTS).map((each) => `${each.assetName} ${holderNumber(each.value)}`);
  const more = holders.length > MAX_PARTS ? ` and ${holders.length - MAX_PARTS} more` : '';
  const without =
    leftOut.length > 0 ? `. Not counted, without it: ${leftOut.slice(0, MAX_PARTS).join('; ')}` : '';
  return `${holderNumber(total)}: ${named.join(', ')}${more}${without}`;
}

function Part({
  part,
  now,
  zone,
  decimals,
}: {
  readonly part: ProvenancePart;
  readonly now: number;
  readonly zone: string;
  readonly decimals: number;
}) {
  return (
    <View style={styles.part}>
      <Rule />
      <Words as="rowTitle">{`${part.metricName}, ${part.assetName}`}</Words>
      <Fact
        name="Part"
        text={`${part.summary} ${part.value === null ? 'none' : `${formatNumber(part.value, Math.max(decimals, 2))} ${part.unit}`}`}
      />
      <Fact
        name="Samples"
        text={`${formatNumber(part.samples, 0)} used, coverage ${formatNumber(part.coverage * 100, 1)} %`}
      />
      {part.sources.map((source) => (
        <Fact
          key={`${source.kind}-${source.name}-${source.importedAt}`}
          name={source.kind === 'file' ? 'From file' : 'From pushes'}
          text={
            source.kind === 'file'
              ? `${source.name}, imported ${formatMoment(source.importedAt ?? now, zone, now)}, ${formatNumber(source.samples ?? 0, 0)} samples in all`
              : `${source.name}, ${formatNumber(source.samples ?? 0, 0)} samples on these days`
          }
        />
      ))}
      {part.sources.length === 0 && <Fact name="From" text="nothing in this window" />}
    </View>
  );
}

const styles = StyleSheet.create({
  part: { gap: 6 },
});
