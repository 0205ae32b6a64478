import { G } from 'react-native-svg';
import { NoDataMark } from './NoDataMark';

/** The No data lamp where a gauge's numeral would stand. */
export function GaugeNoData({ x, y }: { readonly x: number; readonly y: number }) {
  return (
    <G x={x - 18} y={y - 18} scale={1.5}>
      <NoDataMark />
    </G>
  );
}
