import { useId, type ComponentProps, type ReactNode } from 'react';

const box =
  'min-h-12 w-full rounded-md border border-edge bg-panel px-3 text-16 text-ink focus:border-lamp-edge focus:bg-lamp aria-invalid:border-rust';

interface Frame {
  label: string;
  hint?: ReactNode;
  error?: ReactNode;
}

function Framed({ id, label, hint, error, children }: Frame & { id: string; children: ReactNode }) {
  return (
    <div className="flex min-w-0 flex-col gap-1">
      <label htmlFor={id} className="caption">
        {label}
      </label>
      {children}
      {error ? (
        <div id={`${id}-note`} className="text-13 text-rust">
          {error}
        </div>
      ) : hint ? (
        <p id={`${id}-note`} className="text-12 text-muted">
          {hint}
        </p>
      ) : null}
    </div>
  );
}

const noted = (id: string, { error, hint }: Frame) => ({
  id,
  'aria-invalid': error ? true : undefined,
  'aria-describedby': error || hint ? `${id}-note` : undefined,
});

/** A labelled input; its error stands below and is read out with it. */
export function TextField({ label, hint, error, className = '', ...rest }: Frame & ComponentProps<'input'>) {
  const id = useId();
  return (
    <Framed id={id} {...{ label, hint, error }}>
      <input
        {...noted(id, { label, hint, error })}
        autoComplete="off"
        className={`${box} ${className}`}
        {...rest}
      />
    </Framed>
  );
}

export function SelectField({
  label,
  hint,
  error,
  className = '',
  children,
  ...rest
}: Frame & ComponentProps<'select'>) {
  const id = useId();
  return (
    <Framed id={id} {...{ label, hint, error }}>
      <select {...noted(id, { label, hint, error })} className={`${box} ${className}`} {...rest}>
        {children}
      </select>
    </Framed>
  );
}

export function AreaField({
  label,
  hint,
  error,
  className = '',
  ...rest
}: Frame & ComponentProps<'textarea'>) {
  const id = useId();
  return (
    <Framed id={id} {...{ label, hint, error }}>
      <textarea
        {...noted(id, { label, hint, error })}
        rows={3}
        className={`${box} py-2 ${className}`}
        {...rest}
      />
    </Framed>
  );
}
