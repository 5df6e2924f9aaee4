export { balancedBuds, budFormulas, budTarget, cropForecast, IN_BALANCE, yieldToPrunings } from './budget.ts'
export type { BudFormulaId, BudGoal, BudTarget, BudYield, CropForecast } from './budget.ts'
