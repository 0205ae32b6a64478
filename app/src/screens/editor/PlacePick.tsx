import { useState } from 'react';
import { View } from 'react-native';
import { boardOfLink } from '@vivid-beacon/core/src/boards';
import { BoardPick } from '../../assets/BoardPick';
import { Field } from '../../components/Field';
import { safeLink } from '../../components/safeLink';
import { WordRow } from '../../components/WordRow';

type Way = 'none' | 'board' | 'address';
const WAYS = [
  { value: 'none', label: 'nowhere' },
  { value: 'board', label: 'to a board' },
  { value: 'address', label: 'to an address' },
] as const;

interface PlacePickProps {
  readonly link: string | null;
  readonly onChange: (link: string | null) => void;
}

/** Where the numbers of a readout lead besides how they were made: a board from the list, or an address. */
export function PlacePick({ link, onChange }: PlacePickProps) {
  const [way, setWay] = useState<Way>(link === null ? 'none' : boardOfLink(link) ? 'board' : 'address');
  return (
    <View style={{ gap: 8 }}>
      <WordRow
        name="Its numbers lead"
        options={WAYS}
        chosen={way}
        onChoose={(value) => {
          setWay(value);
          if (value === 'none') onChange(null);
        }}
      />
      {way === 'board' && (
        <BoardPick chosen={boardOfLink(link)} onChoose={(id) => onChange(`/boards/${id}`)} />
      )}
      {way === 'address' && (
        <Field
          label="Address"
          value={link ?? ''}
          placeholder="https://, mailto: or a page of this app"
          error={
            link && !safeLink(link)
              ? 'This is not a page of this app, a web address or an e-mail address.'
              : undefined
          }
          onChange={(text) => onChange(text.trim() === '' ? null : text)}
        />
      )}
    </View>
  );
}
