import { StyleSheet, View } from 'react-native';
import type { Interval, Metric } from '@vivid-beacon/core';
import { linkTo } from '../../api/client';
import { Button } from '../../components/Button';
import { DownloadIcon } from '../../components/icons';
import { usePalette } from '../../theme/useTheme';
import { download } from '../download';

const FORMATS = [
  { value: 'csv', label: 'CSV' },
  { value: 'xlsx', label: 'XLSX' },
  { value: 'ndjson', label: 'NDJSON' },
] as const;

/** Fetches the raw samples of a window as a file. */
export function ExportButtons({ metric, window }: { readonly metric: Metric; readonly window: Interval }) {
  const palette = usePalette();
  return (
    <View style={styles.row}>
      {FORMATS.map(({ value, label }) => (
        <Button
          key={value}
          variant="quiet"
          label={label}
          name={`Download samples as ${label}`}
          icon={<DownloadIcon size={18} color={palette.ink} strokeWidth={1.75} />}
          onPress={() =>
            download(
              linkTo('GET /api/exports/samples', {
                query: { metricIds: metric.id, from: window.start, to: window.end, format: value },
              }),
            )
          }
        />
      ))}
    </View>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', gap: 8, flexWrap: 'wrap', paddingVertical: 6 },
});
