import type { Parsed } from '@lanternwright/core/quantity';
import { TextField } from './field.tsx';
import { whyUnread } from './why-unread.tsx';

/** A field for one figure with its unit. Why it could not be read stands below it once it was `tried`. */
export function FigureField({
  label,
  hint,
  autoFocus = false,
  value,
  parsed,
  tried,
  onChange,
}: {
  label: string;
  hint?: string;
  autoFocus?: boolean;
  value: string;
  parsed: Parsed;
  tried: boolean;
  onChange: (text: string) => void;
}) {
  return (
    <TextField
      label={label}
      hint={hint}
      className="figure"
      inputMode="decimal"
      autoFocus={autoFocus}
      value={value}
      error={tried && whyUnread(parsed, onChange)}
      onChange={(e) => onChange(e.target.value)}
    />
  );
}
