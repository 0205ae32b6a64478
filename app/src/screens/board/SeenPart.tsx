import { useAssetsById } from '../../api/catalogue';
import { usePerson } from '../../api/session';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';

/** Says which part of a board somebody sees who does not see every plant. @param leftOut number of readouts left out. */
export function SeenPart({ leftOut }: { readonly leftOut: number }) {
  const palette = usePalette();
  const rights = usePerson()?.rights;
  const ids = Object.keys(rights?.plants ?? {});
  const { byId } = useAssetsById(ids);
  if (!rights || rights.everywhere !== null) return null;
  const names = ids.flatMap((id) => byId.get(id)?.name ?? []).sort();
  const seen =
    names.length === 0 ? 'Shows what you may see.' : `Shows what you may see: ${names.join(', ')}.`;
  const more =
    leftOut === 0
      ? ''
      : ` ${leftOut === 1 ? 'A readout of another plant is' : `${leftOut} readouts of other plants are`} left out.`;
  return (
    <Words as="second" colour={palette.ink2} style={{ paddingVertical: 6 }}>
      {seen + more}
    </Words>
  );
}
