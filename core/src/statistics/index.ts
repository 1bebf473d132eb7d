export { median, medianSlope, rankedSlopes, type Point } from './slopes.ts';
export { betaI, fTail, gammaP, lnGamma } from './special-functions.ts';
