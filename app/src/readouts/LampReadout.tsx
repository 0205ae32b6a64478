import { StyleSheet, View } from 'react-native';
import { bandOfTerciles, displayDivisor } from '@vivid-beacon/core';
import { lampLines, RELATIVE_WORDS, type ValuesData } from '@vivid-beacon/core/src/boards';
import { useBoardFilters } from '../boards/BoardFiltersContext';
import { Button } from '../components/Button';
import { Lamp } from '../components/Lamp';
import { Words } from '../components/Words';
import { usePalette } from '../theme/useTheme';
import type { DrawProps } from './drawProps';
import { ValueRow } from './ValueRow';

/**
 * Lamps with their words and values. Without a target band they show terciles of the list and say so: where a
 * value ranks, not whether it is good.
 */
export function LampReadout({ data, onOpen }: DrawProps<ValuesData>) {
  const palette = usePalette();
  const { onBand } = useBoardFilters();
  const { values, readout, decimals } = data;
  const lines = lampLines(data);
  const by = displayDivisor(readout.display);
  const draft = readout.band ? null : bandOfTerciles(values.map(({ value }) => value && value * by));
  return (
    <>
      {lines.map(({ part, name, nameInk, lit, second }, i) => (
        <ValueRow
          key={part.key}
          part={{ ...part, name }}
          nameColour={nameInk && palette[nameInk]}
          judged={readout.band !== null}
          decimals={decimals}
          last={i === lines.length - 1}
          left={lit && <Lamp level={part.level} size={24} />}
          second={second}
          onOpen={() => onOpen(part)}
        />
      ))}
      {lines.some(({ relative }) => relative) && (
        <View style={styles.relative}>
          <Words as="caption" colour={palette.ink2}>
            {RELATIVE_WORDS}
          </Words>
          {onBand && draft && (
            <Button variant="quiet" label="Make it a target band" onPress={() => onBand(readout.id, draft)} />
          )}
        </View>
      )}
    </>
  );
}

const styles = StyleSheet.create({ relative: { gap: 4, alignItems: 'flex-start' } });
