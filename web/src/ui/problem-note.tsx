import type { ReactNode } from 'react';

/** Words about what happened, what was kept and what to do; read out when they appear. */
export function Note({ tone, children }: { tone: 'trouble' | 'plain' | 'good'; children: ReactNode }) {
  const look = {
    trouble: 'border-rust bg-rust-wash',
    plain: 'border-edge bg-side',
    good: 'border-pine bg-pine-wash',
  }[tone];
  return (
    <div
      role={tone === 'trouble' ? 'alert' : 'status'}
      className={`rounded-md border-l-4 px-4 py-3 text-14 ${look}`}
    >
      {children}
    </div>
  );
}
