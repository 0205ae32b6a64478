import { BUCKET_WORDS, DEFAULT_RULES, type Metric } from '@vivid-beacon/core';
import { useCalendar, useReferenceValues } from '../../api/data';
import { useSaveReferenceValues } from '../../api/dataChanges';
import { QueryResult } from '../../components/QueryResult';
import { PeriodValues } from '../../components/PeriodValues';
import { Section } from '../../components/Section';

/** Values of a reference series by period. */
export function ReferenceTable({ metric, mayEdit }: { readonly metric: Metric; readonly mayEdit: boolean }) {
  const values = useReferenceValues(metric.id, true);
  const rules = useCalendar(metric.plantId).data ?? DEFAULT_RULES;
  const save = useSaveReferenceValues();
  const period = metric.period ?? 'month';
  return (
    <Section title="Values" aside={`one for each ${BUCKET_WORDS[period]}`}>
      <QueryResult query={values} reading="Loading values">
        {(known) => (
          <PeriodValues
            values={known}
            period={period}
            zone={metric.zone}
            rules={rules}
            unit={metric.unit}
            decimals={metric.decimals}
            mayEdit={mayEdit}
            saving={save.isPending}
            error={save.error}
            onSave={(given, done) => save.mutate({ id: metric.id, values: given }, { onSuccess: done })}
          />
        )}
      </QueryResult>
    </Section>
  );
}
