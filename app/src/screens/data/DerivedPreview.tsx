import type { UseQueryResult } from '@tanstack/react-query';
import { StyleSheet, View } from 'react-native';
import {
  HOUR_MS,
  decimalsFor,
  formatNumber,
  scaleEnds,
  type DerivedWay,
  type ExpressionPreview,
} from '@vivid-beacon/core';
import { LazyTrend } from '../LazyTrend';
import { Loading } from '../../components/Loading';
import { Words } from '../../components/Words';
import { useWidth } from '../../hooks/useWidth';
import { usePalette } from '../../theme/useTheme';

interface DerivedPreviewProps {
  readonly query: UseQueryResult<ExpressionPreview>;
  readonly asked: boolean;
  readonly way: DerivedWay;
}

/** What the expression gives over the last day, or what is wrong with it. */
export function DerivedPreview({ query, asked, way }: DerivedPreviewProps) {
  const palette = usePalette();
  const [width, onLayout] = useWidth();
  if (!asked) {
    return (
      <Words as="body" colour={palette.ink2}>
        Write an expression: its course over the last day shows here as you type.
      </Words>
    );
  }
  if (query.isError) {
    return (
      <View role="alert" style={[styles.wrong, { borderColor: palette.breach }]}>
        <Words as="body" colour={palette.breachT}>
          {query.error.message}
        </Words>
      </View>
    );
  }
  if (!query.data) return <Loading what="Calculating" />;
  const { t, v, unit, window, zone, value } = query.data;
  const given = v.filter((x) => x !== null);
  const decimals = Math.min(4, decimalsFor(...scaleEnds(null, given)));
  return (
    <View onLayout={onLayout} style={query.isPlaceholderData && styles.old}>
      <View style={styles.value}>
        <Words as="hero">{value === null ? 'No data' : formatNumber(value, Math.max(2, decimals))}</Words>
        <Words as="body" colour={palette.ink2}>
          {`${unit}${way === 'totals' ? ' over the last 24 h' : ' at the newest sample'}`}
        </Words>
      </View>
      {width > 0 && given.length > 0 && (
        <LazyTrend
          width={width}
          height={170}
          answer={{
            window,
            zone,
            unit,
            now: window.end,
            t,
            v,
            bucket: way === 'totals' ? 'hour' : null,
            until: way === 'totals' ? t.map((at) => at + HOUR_MS) : null,
            gaps: [],
            samples: t.length,
          }}
          band={null}
          decimals={decimals}
          name="Result of the expression"
          caption={way === 'totals' ? 'one value an hour' : 'sample by sample'}
        />
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  wrong: { borderWidth: 1.5, borderRadius: 10, padding: 12 },
  value: { flexDirection: 'row', alignItems: 'baseline', gap: 10 },
  old: { opacity: 0.6 },
});
