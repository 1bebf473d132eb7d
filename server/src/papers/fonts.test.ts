import { expect, it } from 'vitest';
import { fontsInUse, runsOf } from './fonts.ts';

const fontsOf = (text: string) => runsOf(text).map((r) => r.font.replace('@fontsource/', '').split(' ')[0]);

it('sets a name in whatever script it is, in a font that has it, and says of the rest that it is not to be had', () => {
  expect(fontsOf('Q. Fenmoor, 90° ±0.02 µm “×” ≥ ½')).toContain('archivo');
  expect(fontsOf('Козлов')).toEqual(['noto-sans']);
  expect(fontsOf('Γιάννης')).toEqual(['noto-sans']);
  expect(fontsOf('राजेश')).toEqual(['noto-sans']);
  expect(fontsOf('สมชาย')).toEqual(['noto-sans-thai']);
  expect(new Set(fontsOf('山田太郎'))).toEqual(new Set(['sawarabi-gothic']));
  expect(new Set(fontsOf('김철수'))).toEqual(new Set(['nanum-gothic']));
  expect(new Set(fontsOf('赵军'))).toEqual(new Set(['zcool-xiaowei']));
  expect(
    runsOf('a\u0007b𓀀')
      .map((r) => r.text)
      .join(''),
  ).toBe('a b?');
});

it('puts words that are read from the right in the order in which they stand on paper, and what is round them as it was', () => {
  const words = runsOf('Released by דוד לוי, 2L').map((r) => r.text);
  expect(words).toEqual(['Released by ', 'לוי', ' ', 'דוד', ', 2L']);
});

it('a mark stays with the letter it stands over, and nothing turns the rest of a line', () => {
  expect(runsOf('Zoe\u0308').map((r) => r.text)).toEqual(['Zoë']);
  expect(runsOf('a\u202eb').map((r) => r.text)).toEqual(['a b']);
});

it('hands over every font it named, each in two weights', () => {
  const [run] = runsOf('Пётр');
  const { names, files } = fontsInUse();
  const { normal, bold } = names[run!.font]!;
  expect(files.get(normal)!.length).toBeGreaterThan(1_000);
  expect(files.get(bold)!.equals(files.get(normal)!)).toBe(false);
});
