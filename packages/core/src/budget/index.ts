export { balancedBuds, budFormulas, budTarget, cropForecast, yieldToPrunings } from './budget.ts'
export type { BudFormulaId, BudGoal, BudTarget } from './budget.ts'
