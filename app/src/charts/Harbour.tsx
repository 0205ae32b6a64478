import Svg from 'react-native-svg';
import { Land } from './Land';
import { Lighthouse } from './Lighthouse';

const HEIGHT = 132;

/** The quiet coast over the sign-in form. */
export function Harbour({ width }: { readonly width: number }) {
  if (width === 0) return null;
  return (
    <Svg width={width} height={HEIGHT} aria-hidden>
      <Land width={width} horizon={HEIGHT - 28} sea={28} />
      <Lighthouse x={width * 0.7} foot={HEIGHT - 28} height={72} level="clear" reach={0} />
    </Svg>
  );
}
