import { sameWindow, windowWords, type WindowSpec } from '@vivid-beacon/core';
import { PickList } from '../../components/PickList';
import { RELATIVE_WINDOWS } from './relativeWindows';

interface RelativePickProps {
  readonly chosen: WindowSpec | null;
  readonly onChoose: (window: WindowSpec) => void;
}

/** Windows relative to now, past and to come. */
export function RelativePick({ chosen, onChoose }: RelativePickProps) {
  const at = chosen === null ? -1 : RELATIVE_WINDOWS.findIndex((spec) => sameWindow(spec, chosen));
  return (
    <PickList
      name="Relative window"
      searchFrom={99}
      maxHeight={260}
      options={RELATIVE_WINDOWS.map((spec, i) => ({ value: String(i), label: capital(windowWords(spec)) }))}
      chosen={at < 0 ? null : String(at)}
      onChoose={(i) => onChoose(RELATIVE_WINDOWS[Number(i)])}
    />
  );
}

const capital = (text: string): string => text[0].toUpperCase() + text.slice(1);
