import { formatNumber, type DataOf } from '@vivid-beacon/core';
import { isLit, stateWords, onSharedScale, straightWidth } from '@vivid-beacon/core/src/boards';
import { textWidth } from '@vivid-beacon/core/src/pictures';
import { StraightGauge } from '../charts/StraightGauge';
import { Lamp } from '../components/Lamp';
import type { DrawProps } from './drawProps';
import { ValueRow } from './ValueRow';

const NUMBER = 18;
const UNIT = 14;
/** Between a number and its unit, and the room around both, px. */
const AROUND = 12;

/** Straight gauges under one another on one scale, so that their bands line up. */
export function StraightReadout({ data, width, onOpen }: DrawProps<DataOf<'straight'>>) {
  const { values, decimals, readout } = data;
  const { band } = readout;
  const numberRoom = Math.max(
    ...values.map(
      ({ value, unit }) =>
        textWidth(value === null ? '–' : formatNumber(value, decimals), 'strong', NUMBER) +
        textWidth(unit, 'regular', UNIT) +
        AROUND,
    ),
  );
  return values.map((part, i) => (
    <ValueRow
      key={part.key}
      part={part}
      judged={band !== null}
      numberRoom={numberRoom}
      decimals={decimals}
      last={i === values.length - 1}
      left={isLit(part, band) ? <Lamp level={part.level} size={22} /> : undefined}
      second={band || part.level === 'nodata' ? stateWords(part, band, decimals) : undefined}
      middle={<StraightGauge width={straightWidth(width)} {...onSharedScale(data, part)} />}
      onOpen={() => onOpen(part)}
    />
  ));
}
