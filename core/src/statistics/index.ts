export { median, medianSlope, rankedSlopes, type Point } from './slopes.ts';
export { betaI, chiSquareTail, fTail, gammaP, lnGamma } from './special-functions.ts';
