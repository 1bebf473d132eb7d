export { jobCost, jobCostCalculation } from './job-cost.ts';
export { billDifferences, billSchema, billTotals, sayMoney, type Bill, type BillDifference } from './bill.ts';
