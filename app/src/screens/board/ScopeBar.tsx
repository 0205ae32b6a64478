import { useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { hoursWords, type BoardDocument, type HoursFilter, type Scope } from '@vivid-beacon/core';
import { scopeWords } from '@vivid-beacon/core/src/boards';
import { useAssetsById } from '../../api/catalogue';
import type { FilterChange } from '@vivid-beacon/core';
import { Button } from '../../components/Button';
import { Chip } from '../../components/Chip';
import { CloseIcon, FocusIcon, HelpIcon, HoursIcon, ScopeIcon } from '../../components/icons';
import { HoursPanel } from '../../components/scope/HoursPanel';
import { ScopePanel } from '../../components/scope/ScopePanel';
import { IconButton } from '../../components/IconButton';
import { Tray } from '../../components/Tray';
import { useLayout } from '../../hooks/useLayout';

interface ScopeBarProps {
  /** What was saved with the board. */
  readonly saved: Pick<BoardDocument, 'scope' | 'hours'>;
  readonly scope: Scope;
  readonly hours: HoursFilter | null;
  /** Name of the asset everything follows; null = none. */
  readonly focused: string | null;
  /** Lets go of a stretch of time that became the window; null if none did. */
  readonly onLetGo: (() => void) | null;
  readonly onChange: (part: Partial<FilterChange>) => void;
  readonly onHelp: () => void;
}

/** What the board shows, written out: assets, hours and focus; each opens its choices. */
export function ScopeBar({ saved, scope, hours, focused, onLetGo, onChange, onHelp }: ScopeBarProps) {
  const { wide } = useLayout();
  const { byId: assets } = useAssetsById(scope.assetIds ?? []);
  const [open, setOpen] = useState<'scope' | 'hours' | null>(null);
  const words = scopeWords(scope, (id) => assets.get(id)?.name);
  const close = (): void => setOpen(null);
  const asSaved = scope === saved.scope && hours === saved.hours;
  return (
    <View style={[styles.bar, { paddingHorizontal: wide ? 24 : 20 }]}>
      <ScrollView horizontal showsHorizontalScrollIndicator={false} contentContainerStyle={styles.chips}>
        <Chip
          icon={ScopeIcon}
          label={words ?? 'All assets'}
          name={`Scope: ${words ?? 'all assets'}`}
          on={words !== null}
          onPress={() => setOpen('scope')}
        />
        <Chip
          icon={HoursIcon}
          label={hours ? hoursWords(hours) : 'All hours'}
          name={`Hours: ${hours ? hoursWords(hours) : 'all'}`}
          on={hours !== null}
          onPress={() => setOpen('hours')}
        />
        {focused !== null && (
          <Chip
            icon={FocusIcon}
            label={`Focus: ${focused}`}
            name={`Release the focus on ${focused}`}
            on
            onPress={() => onChange({ focus: null })}
          />
        )}
        {onLetGo && <Chip icon={CloseIcon} label="Let go of the stretch" on onPress={onLetGo} />}
        {!asSaved && (
          <Chip
            icon={CloseIcon}
            label="As saved"
            on={false}
            onPress={() => onChange({ scope: null, hours: undefined })}
          />
        )}
      </ScrollView>
      <IconButton icon={HelpIcon} name="Keys of this board" onPress={onHelp} />
      <Tray title="Scope" open={open === 'scope'} onClose={close}>
        {open === 'scope' && (
          <>
            <ScopePanel scope={scope} onChange={(next) => onChange({ scope: next })} />
            <Button variant="primary" label="Done" onPress={close} />
          </>
        )}
      </Tray>
      <Tray title="Recurring hours" open={open === 'hours'} onClose={close}>
        {open === 'hours' && (
          <>
            <HoursPanel hours={hours} onChange={(next) => onChange({ hours: next })} />
            <Button variant="primary" label="Done" onPress={close} />
          </>
        )}
      </Tray>
    </View>
  );
}

const styles = StyleSheet.create({
  bar: { flexDirection: 'row', alignItems: 'center', minHeight: 44, paddingBottom: 6 },
  chips: { gap: 8, alignItems: 'center', paddingVertical: 2 },
});
