import { useState } from 'react';
import { View } from 'react-native';
import { boardOfLink } from '@vivid-beacon/core/src/boards';
import { itemsOf } from '../../api/pages';
import { useBoardPages } from '../../api/queries';
import { SearchedPick } from '../../assets/SearchedPick';
import { Field } from '../../components/Field';
import { safeLink } from '../../components/safeLink';
import { useSearch } from '../../components/SearchField';
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

function BoardPick({
  chosen,
  onChoose,
}: {
  readonly chosen: string | null;
  readonly onChoose: (id: string) => void;
}) {
  const search = useSearch();
  const found = useBoardPages(search.settled);
  return (
    <SearchedPick
      name="Board"
      options={itemsOf(found.data).map(({ id, title, ownerName }) => ({
        value: id,
        label: title,
        detail: ownerName,
      }))}
      chosen={chosen}
      found={found}
      search={search.text}
      settled={search.settled}
      onSearch={search.onText}
      onChoose={onChoose}
    />
  );
}
