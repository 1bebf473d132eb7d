export { mendPlan, type Mended, type MovedBecause, type Place } from './mend.ts';
export { shopPlanInput, type ShopPlanInput } from './problem.ts';
export { planShop, planShopNow, shopPlanCalculation, type PlanProgress, type ShopPlan } from './shop-plan.ts';
export type { Because } from './why.ts';
