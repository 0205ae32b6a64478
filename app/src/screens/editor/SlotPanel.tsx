import { useStore } from 'zustand';
import {
  BUCKET_WORDS,
  BUCKETS,
  scaleEnds,
  WHOLE_SCOPE,
  type Asset,
  type Bucket,
  type Metric,
  type Slot,
  type WindowSpec,
} from '@vivid-beacon/core';
import {
  automaticFootnote,
  automaticTitle,
  offeredSlots,
  takesAllMeasures,
} from '@vivid-beacon/core/src/boards';
import { Field } from '../../components/Field';
import { PickList } from '../../components/PickList';
import { HoursPanel } from '../../components/scope/HoursPanel';
import { ScopePanel } from '../../components/scope/ScopePanel';
import type { createReadoutDraftStore } from '../../stores/readoutDraftStore';
import { BandSlot } from './BandSlot';
import { ComparePanel } from './ComparePanel';
import { GroupPanel, OneMetricOnly } from './GroupPanel';
import { AppearancePanel } from './AppearancePanel';
import { MorePanel } from './MorePanel';
import { summaryOptions } from './summaryOptions';
import { PerPanel } from './PerPanel';
import { WhatPanel } from './WhatPanel';
import { WindowPanel } from './WindowPanel';

export const SLOT_TITLES: Readonly<Record<Slot, string>> = {
  metric: 'Metric',
  summary: 'Summary',
  per: 'Per a metric or an attribute',
  more: 'More metrics',
  group: 'Grouped',
  scope: 'Which assets',
  hours: 'Which hours',
  window: 'Window',
  bucket: 'One value for',
  band: 'Target band',
  compare: 'Compared with',
  appearance: 'How it is shown',
  words: 'Text of the note',
};

interface SlotPanelProps {
  readonly store: ReturnType<typeof createReadoutDraftStore>;
  /** Those that it names. */
  readonly metrics: readonly Metric[];
  /** Those of its scope. */
  readonly assets: ReadonlyMap<string, Asset>;
  readonly boardWindow: WindowSpec;
  readonly unit: string;
  readonly decimals: number;
  readonly values: readonly number[];
  readonly now: number;
}

/** The choices of the slot that is open. */
export function SlotPanel({
  store,
  metrics,
  assets,
  boardWindow,
  unit,
  decimals,
  values,
  now,
}: SlotPanelProps) {
  const { readout, open, actions } = useStore(store);
  const [measure] = readout.measures;
  const metric = metrics.find(({ id }) => id === measure?.metricId);
  const slots = offeredSlots(readout);
  const offered = slots.includes(open) ? open : slots[0];
  const slot: Slot = measure || !slots.includes('metric') ? offered : 'metric';
  switch (slot) {
    case 'metric':
      return (
        <WhatPanel readout={readout} onMetric={actions.chooseMetric} onIndicator={actions.chooseIndicator} />
      );
    case 'summary':
      return (
        <PickList
          name="Summary"
          searchFrom={99}
          options={metric ? summaryOptions(metric) : []}
          chosen={measure.summary}
          onChoose={actions.chooseSummary}
        />
      );
    case 'per':
      return <PerPanel measure={measure} onChange={(change) => actions.changeMeasure(0, change)} />;
    case 'more':
      return (
        <MorePanel
          readout={readout}
          metrics={metrics}
          onAdd={actions.addMeasure}
          onRemove={actions.removeMeasure}
          onChange={actions.changeMeasure}
        />
      );
    case 'group':
      return <GroupPanel readout={readout} metricName={metric?.name ?? ''} onChange={actions.change} />;
    case 'scope':
      // Only groups can be narrowed: a single metric is of one asset.
      return readout.groupBy === null && readout.measures.length > 1 && !takesAllMeasures(readout) ? (
        <OneMetricOnly
          metricName={metric?.name ?? ''}
          others={readout.measures.length - 1}
          onDrop={() => actions.change({ measures: readout.measures.slice(0, 1) })}
        />
      ) : (
        <ScopePanel
          scope={readout.scope ?? WHOLE_SCOPE}
          onChange={(scope) =>
            actions.change({
              scope: scope.assetIds === null && scope.attributes.length === 0 ? null : scope,
              groupBy: readout.groupBy ?? { kind: 'asset' },
            })
          }
        />
      );
    case 'hours':
      return <HoursPanel hours={readout.hours} onChange={(hours) => actions.change({ hours })} />;
    case 'window':
      return (
        <WindowPanel
          window={readout.window}
          zone={metric?.zone ?? 'UTC'}
          now={now}
          onChange={(window) => actions.change({ window })}
        />
      );
    case 'bucket':
      return (
        <PickList
          name="One value for"
          searchFrom={99}
          options={[
            { value: 'samples' as const, label: 'Every sample' },
            ...BUCKETS.map((value) => ({ value, label: `The ${BUCKET_WORDS[value]}` })),
          ]}
          chosen={('bucket' in readout && readout.bucket) || 'samples'}
          onChoose={(value) => actions.change({ bucket: value === 'samples' ? null : (value as Bucket) })}
        />
      );
    case 'band':
      return (
        <BandSlot
          readout={readout}
          metrics={metrics}
          window={readout.window ?? boardWindow}
          unit={unit}
          decimals={decimals}
          onChange={actions.change}
        />
      );
    case 'compare':
      return <ComparePanel readout={readout} onChange={actions.change} />;
    case 'appearance': {
      const byId = new Map(metrics.map((each) => [each.id, each]));
      return (
        <AppearancePanel
          readout={readout}
          metrics={byId}
          automatic={{
            title: automaticTitle(readout, (id) => byId.get(id)),
            footnote: automaticFootnote(readout, (id) => assets.get(id)?.name),
          }}
          ends={scaleEnds(readout.band, values)}
          onChange={actions.change}
        />
      );
    }
    case 'words':
      return (
        <Field
          label="Text, with Markdown for headings, lists, stress and links"
          value={'text' in readout ? readout.text : ''}
          multiline
          onChange={(text) => actions.change({ text })}
        />
      );
  }
}
