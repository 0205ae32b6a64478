import { useState } from 'react';
import { View } from 'react-native';
import { formatMoment, LEVEL_WORDS } from '@vivid-beacon/core';
import type { Part } from '../boards/parts';
import { thirdsOf } from '../boards/thirds';
import { useParts } from '../boards/useParts';
import { Lamp } from '../components/Lamp';
import { Words } from '../components/Words';
import { wordColour } from '../theme/palette';
import { usePalette } from '../theme/useTheme';
import { PartRow } from './PartRow';
import { PartsView } from './PartsView';
import { PartTray } from './PartTray';
import type { ReadoutProps } from './ReadoutView';
import { stateWords } from './StateLine';

/**
 * Lamps with their words and the values they stand for. Without a target band a list is cut into thirds of
 * its own range, and says so: that is where each stands in this list, not whether it is well.
 */
export function LampReadout({ readout, title }: ReadoutProps) {
  const palette = usePalette();
  const [open, setOpen] = useState<Part | null>(null);
  const answer = useParts(readout);
  const { band } = answer.shown.readout;
  return (
    <View>
      <PartsView answer={answer} reading="Reading the lamps">
        {(parts) => {
          const thirds = band ? null : thirdsOf(parts.map(({ value }) => value));
          return (
            <>
              {parts.map((part, i) => (
                <PartRow
                  key={part.key}
                  part={parts.length === 1 ? { ...part, name: stateOf(part) } : part}
                  nameColour={parts.length === 1 ? wordColour(palette, part.level) : undefined}
                  decimals={answer.decimals}
                  last={i === parts.length - 1}
                  left={<Lamp level={part.level} size={24} />}
                  second={secondLine(part, thirds?.[i] ?? null, parts.length === 1)}
                  onOpen={() => setOpen(part)}
                />
              ))}
              {thirds && (
                <Words as="caption" colour={palette.ink2}>
                  Thirds of this list, from its lowest to its highest value. Relative: no target band is set.
                </Words>
              )}
            </>
          );
        }}
      </PartsView>
      <PartTray
        title={title}
        readout={answer.shown.readout}
        decimals={answer.decimals}
        part={open}
        onClose={() => setOpen(null)}
      />
    </View>
  );

  function stateOf(part: Part): string {
    return band && part.level !== 'nodata'
      ? stateWords(part, band, answer.decimals)
      : LEVEL_WORDS[part.level];
  }

  function secondLine(part: Part, third: string | null, alone: boolean): string {
    if (third) return third;
    const { reading } = part;
    if (!reading) return stateOf(part);
    if (reading.asOf === null) return 'no sample';
    const when = `as of ${formatMoment(reading.asOf, reading.provenance.zone, reading.now)}`;
    return alone ? when : `${stateOf(part)}, ${when}`;
  }
}
