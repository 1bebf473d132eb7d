export { shopPlanInput, type ShopPlanInput } from './problem.ts';
export { planShop, planShopNow, shopPlanCalculation, type PlanProgress, type ShopPlan } from './shop-plan.ts';
