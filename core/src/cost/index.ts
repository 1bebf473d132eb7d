export { jobCost, jobCostCalculation } from './job-cost.ts';
