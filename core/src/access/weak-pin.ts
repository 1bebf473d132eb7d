const BASE = 10;

/**
 * Whether a PIN is one that is tried first: a run of digits up or down, one digit again and again, a few digits
 * repeated, or a year that somebody could be born in.
 * @param pin digits
 * @source common practice, no source
 */
export function isWeakPin(pin: string): boolean {
  const digits = [...pin].map(Number);
  const steps = new Set(digits.slice(1).map((d, i) => (d - digits[i]! + BASE) % BASE));
  const isRun = steps.size === 1 && [0, 1, BASE - 1].includes([...steps][0]!);
  const repeats = digits.some((_, i) => {
    const length = i + 1;
    return length <= pin.length / 2 && pin === pin.slice(0, length).repeat(pin.length / length);
  });
  return isRun || repeats || /^(19|20)\d\d$/.test(pin);
}
