const PARTS = [2, 3, 4, 6, 8, 12, 16, 24, 32];

/**
 * A turn as a fitter says it: "1/16 turn", "1 1/2 turns", or in degrees where no common part fits.
 * The sign is left to the verb.
 */
export function formatTurn(turns: number): string {
  const size = Math.abs(turns);
  const whole = Math.floor(size + 1e-6);
  const rest = size - whole;
  if (rest < 1e-3) return whole === 1 ? 'one full turn' : `${whole} turns`;
  for (const part of PARTS) {
    const count = Math.round(rest * part);
    if (count > 0 && count < part && Math.abs(rest - count / part) < 1e-4) {
      return whole === 0 ? `${count}/${part} turn` : `${whole} ${count}/${part} turns`;
    }
  }
  return `${(size * 360).toFixed(0)}°`;
}
