import { z } from 'zod';
import { defineCalculation } from '../calculation/index.ts';

/** Load-deflection exponent of a roller: 10/9, which the tables round to 1.1. */
const inputSchema = z.object({
  epsilon: z.number().min(1e-6).max(1e6),
  exponent: z.number().min(0.5).max(5).default(1.1),
});
const outputSchema = z.object({ jr: z.number(), ja: z.number() });

const STEPS = 2000;

/**
 * Load-distribution integrals of a bearing row under load-zone parameter ε:
 * (1/2π)∫[1 − (1 − cos ψ)/2ε]^t·{cos ψ, 1} dψ over the loaded zone.
 *
 * Simpson's rule on ψ = ψ0·(1 − v²), which takes the kink out of the zone's edge.
 * @returns jr radial and ja axial integral, without unit
 * @source Sjövall integrals, bearing handbooks (ε 0.5, line contact: 0.2453 and 0.3090)
 */
export function loadDistribution(epsilon: number, exponent = 1.1): z.output<typeof outputSchema> {
  const edge = epsilon >= 1 ? Math.PI : Math.acos(1 - 2 * epsilon);
  const h = 1 / STEPS;
  let jr = 0;
  let ja = 0;
  for (let i = 0; i <= STEPS; i++) {
    const v = i * h;
    const psi = edge * (1 - v * v);
    // 1 − cos ψ as 2·sin²(ψ/2): exact where the zone is narrow.
    const drop = Math.sin(psi / 2) ** 2 / epsilon;
    const weight = (i === 0 || i === STEPS ? 1 : i % 2 === 1 ? 4 : 2) * 2 * edge * v;
    const load = weight * Math.max(0, 1 - drop) ** exponent;
    ja += load;
    jr += load * Math.cos(psi);
  }
  const scale = h / 3 / Math.PI;
  return { jr: jr * scale, ja: ja * scale };
}

/** `load-distribution`: the integrals that tie the heaviest roller to the load. */
export const loadDistributionCalculation = defineCalculation({
  name: 'load-distribution',
  title: 'Load distribution',
  summary: 'Gives the load-distribution integrals of a bearing row for the width of its load zone.',
  inputSchema,
  outputSchema,
  sources: [{ text: 'Sjövall integrals, rolling-bearing handbooks', mark: 'published' }],
  example: { epsilon: 0.5 },
  compute: ({ epsilon, exponent }) => loadDistribution(epsilon, exponent),
});
