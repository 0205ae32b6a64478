import { DateTime } from 'luxon';
import { DeviceField } from './DeviceField';

interface MomentFieldProps {
  readonly label: string;
  /** ms since the Unix epoch; null = not given. */
  readonly value: number | null;
  /** The wall clock that is shown and typed. */
  readonly zone: string;
  readonly onChange: (value: number | null) => void;
  readonly error?: string;
}

/** A date with a time of day. */
export function MomentField({ value, zone, onChange, ...field }: MomentFieldProps) {
  return (
    <DeviceField
      {...field}
      type="datetime-local"
      minWidth={190}
      value={value === null ? '' : DateTime.fromMillis(value, { zone }).toFormat("yyyy-MM-dd'T'HH:mm")}
      onChange={(text) => {
        const at = DateTime.fromISO(text, { zone });
        onChange(at.isValid ? at.toMillis() : null);
      }}
    />
  );
}
