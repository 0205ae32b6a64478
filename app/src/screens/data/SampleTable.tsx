import { useRef } from 'react';
import { useVirtualizer } from '@tanstack/react-virtual';
import { StyleSheet, View } from 'react-native';
import {
  formatNumber,
  formatValue,
  QUALITY,
  QUALITY_WORDS,
  type Interval,
  type Metric,
  formatExactMoment,
} from '@vivid-beacon/core';
import { SAMPLES_A_PAGE, useSamplePage } from '../../api/data';
import { QueryResult } from '../../components/QueryResult';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';

const ROW = 31;
const HEIGHT = 372;

/** Raw samples of a window, however many: only rows in sight are drawn, only pages in sight are read. */
export function SampleTable({ metric, window }: { readonly metric: Metric; readonly window: Interval }) {
  const palette = usePalette();
  const range = { from: window.start, to: window.end };
  const first = useSamplePage(metric.id, range, 0, true);
  return (
    <QueryResult query={first} reading="Loading samples">
      {({ total }) =>
        total === 0 ? (
          <Words as="body" colour={palette.ink2}>
            No sample lies in this window.
          </Words>
        ) : (
          <Table key={window.start} metric={metric} range={range} total={total} />
        )
      }
    </QueryResult>
  );
}

interface TableProps {
  readonly metric: Metric;
  readonly range: { readonly from: number; readonly to: number };
  readonly total: number;
}

function Table({ metric, range, total }: TableProps) {
  const palette = usePalette();
  const scroller = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({
    count: total,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 12,
  });
  const items = rows.getVirtualItems();
  const pages = [...new Set(items.map(({ index }) => Math.floor(index / SAMPLES_A_PAGE)))];
  const [a = 0, b = a] = pages;
  const pageA = useSamplePage(metric.id, range, a, true);
  const pageB = useSamplePage(metric.id, range, b, b !== a);
  const sampleAt = (index: number): { t: number; v: number; q: number } | null => {
    const page = Math.floor(index / SAMPLES_A_PAGE) === a ? pageA.data : pageB.data;
    if (!page || page.offset !== Math.floor(index / SAMPLES_A_PAGE) * SAMPLES_A_PAGE) return null;
    const i = index - page.offset;
    return i < page.t.length ? { t: page.t[i], v: page.v[i], q: page.q[i] } : null;
  };
  return (
    <View role="table" aria-label={`Samples of ${metric.name}`} {...({ 'aria-rowcount': total } as object)}>
      <View role="row" style={[styles.row, { borderBottomColor: palette.ink }]}>
        <Cell text="Time" wide strong />
        <Cell text={metric.unit ? `Value in ${metric.unit}` : 'Value'} right strong />
        <Cell text="Quality" strong />
      </View>
      <div
        ref={scroller}
        tabIndex={0}
        role="rowgroup"
        aria-label="Rows, scroll for more"
        style={{ height: Math.min(HEIGHT, total * ROW), overflowY: 'auto', position: 'relative' }}
      >
        <div role="presentation" style={{ height: rows.getTotalSize(), position: 'relative' }}>
          {items.map(({ index, start, key }) => {
            const sample = sampleAt(index);
            const odd = sample !== null && sample.q !== QUALITY.good;
            return (
              <div
                key={key}
                role="row"
                aria-rowindex={index + 1}
                style={{
                  position: 'absolute',
                  top: 0,
                  left: 0,
                  right: 0,
                  transform: `translateY(${start}px)`,
                }}
              >
                <View style={[styles.row, { borderBottomColor: palette.line }]}>
                  <Cell text={sample ? formatExactMoment(sample.t, metric.zone) : 'reading'} wide />
                  <Cell
                    text={
                      sample
                        ? formatValue(
                            Number.isNaN(sample.v) ? null : sample.v,
                            '',
                            digitsOf(sample.v, metric.decimals),
                          )
                        : ''
                    }
                    right
                  />
                  <Cell
                    text={sample ? QUALITY_WORDS[sample.q] : ''}
                    colour={odd ? palette.cautionT : palette.ink2}
                  />
                </View>
              </div>
            );
          })}
        </div>
      </div>
      <Words as="second" colour={palette.ink2}>
        {`${formatNumber(total, 0)} samples, times of ${metric.zone}`}
      </Words>
    </View>
  );
}

/** Raw values are shown whole, not rounded to the decimals of a readout. */
function digitsOf(value: number, atLeast: number): number {
  const written = String(value);
  const after =
    written.includes('.') && !written.includes('e') ? written.length - written.indexOf('.') - 1 : 0;
  return Math.max(atLeast, Math.min(9, after));
}

function Cell({
  text,
  wide,
  right,
  strong,
  colour,
}: {
  readonly text: string;
  readonly wide?: boolean;
  readonly right?: boolean;
  readonly strong?: boolean;
  readonly colour?: string;
}) {
  return (
    <View
      role={strong ? 'columnheader' : 'cell'}
      style={[styles.cell, wide && styles.wide, right && styles.right]}
    >
      <Words as={strong ? 'bodyStrong' : 'body'} lines={1} colour={colour}>
        {text}
      </Words>
    </View>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', height: ROW, alignItems: 'center', borderBottomWidth: 1 },
  cell: { flex: 2, paddingHorizontal: 4, minWidth: 0 },
  wide: { flex: 3 },
  right: { alignItems: 'flex-end', paddingRight: 16 },
});
