import { View } from 'react-native';
import { formatValue } from '@vivid-beacon/core';
import { useParts } from '../boards/useParts';
import { StraightGauge } from '../charts/StraightGauge';
import { sharedScale } from '../charts/valueAxis';
import { Lamp } from '../components/Lamp';
import { useWidth } from '../hooks/useWidth';
import { PartRow } from './PartRow';
import { PartsView } from './PartsView';
import type { ReadoutProps } from './readoutProps';
import { stateWords } from './StateLine';

/** About the widest that a character of a number is, px. */
const DIGIT = 9.5;

/** Straight gauges under one another on one scale, so that their bands line up. */
export function StraightReadout({ readout, title }: ReadoutProps) {
  const [width, onLayout] = useWidth();
  const answer = useParts(readout);
  const { band, scale } = answer.shown.readout;
  const gauge = Math.max(0, Math.min(420, Math.round(width * (width < 420 ? 0.38 : 0.5))));
  return (
    <View onLayout={onLayout}>
      <PartsView answer={answer} title={title} reading="Reading the gauges">
        {(parts, onOpen) => {
          const shared = sharedScale(scale, band, parts);
          const longest = Math.max(
            ...parts.map(({ value, unit }) => formatValue(value, unit, answer.decimals).length),
          );
          return parts.map((part, i) => (
            <PartRow
              key={part.key}
              part={part}
              judged={band !== null}
              numberRoom={longest * DIGIT}
              decimals={answer.decimals}
              last={i === parts.length - 1}
              left={band ? <Lamp level={part.level} size={22} /> : undefined}
              second={band ? stateWords(part, band, answer.decimals) : undefined}
              middle={
                <StraightGauge
                  width={gauge}
                  value={part.value}
                  level={part.level}
                  band={band}
                  reference={part.previous}
                  decimals={answer.decimals}
                  scale={shared}
                />
              }
              onOpen={() => onOpen(part)}
            />
          ));
        }}
      </PartsView>
    </View>
  );
}
