import { DeviceField } from './DeviceField';

interface ClockFieldProps {
  readonly label: string;
  /** "06:30"; "24:00" is the end of the day. */
  readonly value: string;
  readonly onChange: (value: string) => void;
}

const CLOCK = /^([01]\d|2[0-3]):[0-5]\d$/;

/** A time of day; what is not one yet is not told. */
export function ClockField({ label, value, onChange }: ClockFieldProps) {
  return (
    <DeviceField
      type="time"
      label={label}
      minWidth={110}
      value={value === '24:00' ? '00:00' : value.padStart(5, '0')}
      onChange={(text) => CLOCK.test(text) && onChange(text)}
    />
  );
}
