import { StyleSheet, View } from 'react-native';
import { bandOfThirds, displayDivisor, formatMoment, LEVEL_WORDS, thirdsOf } from '@vivid-beacon/core';
import type { Part } from '../boards/parts';
import { useBoardLook } from '../boards/BoardLookContext';
import { useParts } from '../boards/useParts';
import { Button } from '../components/Button';
import { Lamp } from '../components/Lamp';
import { Words } from '../components/Words';
import { wordColour } from '../theme/palette';
import { usePalette } from '../theme/useTheme';
import { PartRow } from './PartRow';
import { PartsView } from './PartsView';
import type { ReadoutProps } from './readoutProps';
import { stateWords } from './StateLine';

/**
 * Lamps with their words and the values they stand for. Without a target band a list is cut into thirds of
 * its own range, and says so: that is where each stands in this list, not whether it is well.
 */
export function LampReadout({ readout, title }: ReadoutProps) {
  const palette = usePalette();
  const answer = useParts(readout);
  const { band } = answer.shown.readout;
  const { onBand } = useBoardLook();
  return (
    <View>
      <PartsView answer={answer} title={title} reading="Reading the lamps">
        {(parts, onOpen) => {
          const by = displayDivisor(answer.shown.readout.display);
          const draft = band ? null : bandOfThirds(parts.map(({ value }) => value && value * by));
          const thirds = band ? null : thirdsOf(parts.map(({ value }) => value));
          return (
            <>
              {parts.map((part, i) => (
                <PartRow
                  key={part.key}
                  part={parts.length === 1 ? { ...part, name: stateOf(part) } : part}
                  nameColour={parts.length === 1 && lit(part) ? wordColour(palette, part.level) : undefined}
                  judged={band !== null}
                  decimals={answer.decimals}
                  last={i === parts.length - 1}
                  left={lit(part) && <Lamp level={part.level} size={24} />}
                  second={secondLine(part, thirds?.[i] ?? null, parts.length === 1)}
                  onOpen={() => onOpen(part)}
                />
              ))}
              {thirds && (
                <View style={styles.relative}>
                  <Words as="caption" colour={palette.ink2}>
                    Thirds of this list, from its lowest to its highest value. Relative: no target band is
                    set.
                  </Words>
                  {onBand && draft && (
                    <Button
                      look="quiet"
                      label="Make it a target band"
                      onPress={() => onBand(readout.id, draft)}
                    />
                  )}
                </View>
              )}
            </>
          );
        }}
      </PartsView>
    </View>
  );

  /** Without a target band nothing is Clear: then only missing data has a lamp. */
  function lit(part: Part): boolean {
    return band !== null || part.level === 'nodata';
  }

  function stateOf(part: Part): string {
    return part.level === 'nodata' ? LEVEL_WORDS.nodata : stateWords(part, band, answer.decimals);
  }

  function secondLine(part: Part, third: string | null, alone: boolean): string {
    if (third) return third;
    if (part.asOf === null) return 'no sample';
    const when = `as of ${formatMoment(part.asOf, part.zone, part.now)}`;
    return alone ? when : `${stateOf(part)}, ${when}`;
  }
}

const styles = StyleSheet.create({ relative: { gap: 4, alignItems: 'flex-start' } });
