import { expect, it } from 'vitest';
import { isWeakPin } from './index.ts';

it.each([
  '0000',
  '77777777',
  '1234',
  '6789',
  '7890',
  '9876',
  '3210',
  '8765',
  '0987',
  '1212',
  '123123',
  '45674567',
  '1984',
  '2007',
])('a PIN of %s is tried first', (pin) => expect(isWeakPin(pin)).toBe(true));

it.each(['2580', '1357', '4711', '12345679', '1223', '123124', '19840', '3841'])(
  'a PIN of %s is not',
  (pin) => expect(isWeakPin(pin)).toBe(false),
);
