import type { ButtonHTMLAttributes } from 'react';

export type Weight = 'main' | 'plain' | 'quiet' | 'grave';

const look: Record<Weight, string> = {
  main: 'px-4 bg-action text-band-ink border-action hover:bg-action-on',
  plain: 'px-4 bg-panel text-ink border-edge hover:bg-side',
  quiet: 'px-0 bg-transparent text-ink border-transparent underline underline-offset-4 hover:bg-side',
  grave: 'px-4 bg-panel text-rust border-rust hover:bg-rust-wash',
};

/** Classes of a button, for links that look like one. */
export function buttonLook(weight: Weight = 'plain'): string {
  return `inline-flex min-h-12 items-center justify-center gap-2 rounded-lg border text-16 font-semibold disabled:cursor-not-allowed disabled:opacity-50 ${look[weight]}`;
}

/** A target a gloved hand hits: 48 px high at least. It never takes the focus by itself: a key that bounces would answer. */
export function Button({
  weight = 'plain',
  className = '',
  type = 'button',
  ...rest
}: Omit<ButtonHTMLAttributes<HTMLButtonElement>, 'autoFocus'> & { weight?: Weight }) {
  return <button type={type} className={`${buttonLook(weight)} ${className}`} {...rest} />;
}
