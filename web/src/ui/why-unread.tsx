import type { ReactNode } from 'react';
import { formatTyped, type Parsed } from '@lanternwright/core/quantity';
import { Button } from './button.tsx';

/**
 * Why a figure could not be read, for below its field; where it could be either of two, both to choose from.
 * @param onChoose takes the figure as it is to stand in the field
 */
export function whyUnread(read: Parsed | null, onChoose: (text: string) => void): ReactNode {
  if (read === null || read.ok) return undefined;
  if (!read.either) return read.message;
  return (
    <>
      {read.message}
      <span className="mt-2 flex flex-wrap gap-2">
        {read.either.map(formatTyped).map((text) => (
          <Button key={text} onClick={() => onChoose(text)}>
            {text}
          </Button>
        ))}
      </span>
    </>
  );
}
