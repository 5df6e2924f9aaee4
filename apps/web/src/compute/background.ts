import type { Catalogue } from '@klados/core/catalogue'
import { planFrame } from '@klados/core/plan'
import type { CutPlan } from '@klados/core/plan'
import { shoppingList } from '@klados/core/shopping'
import type { FrameDesign, PlannedSite } from '@klados/core/design'
import { solveLaying } from '@klados/core/laying'
import type { LayingInstance, LayingSolution } from '@klados/core/laying'
import type { InStores, ShoppingList } from '@klados/core/shopping'
import { fitLayouts, frameOptions } from '@klados/core/frame'
import type { AnchorId, FitProposal } from '@klados/core/frame'
import type { Drive } from '@klados/core/ground'
import { adviseAll } from '@klados/core/remedies'
import type { AllAdvice, Grain } from '@klados/core/remedies'

/** Longer nobody waits before a plant. */
const LAY_MS = 4000

/** What is done of what there is to do. */
export interface Progress {
  readonly done: number
  readonly of: number
}

type Report = (progress: Progress) => void

export interface ShoppingWork {
  readonly frames: readonly {
    readonly name: string
    readonly site: PlannedSite
    readonly design: FrameDesign
  }[]
  readonly onHand: readonly InStores[]
  readonly catalogue: Catalogue
}

export interface FitWork {
  readonly site: PlannedSite
  readonly design: FrameDesign
  readonly catalogue: Catalogue
}

export interface AdviceWork extends FitWork {
  readonly drives: ReadonlyMap<AnchorId, Drive>
  readonly grain: Grain
}

/** A layout that fits, with what it would cost. */
export interface PricedFit {
  readonly fit: FitProposal
  readonly cost: number | null
}

/**
 * The work that can take longer than a keystroke may, for a thread of its own. Between steps it tells how far
 * it is; it is called off by ending its thread.
 */
export const background = {
  shopping({ frames, onHand, catalogue }: ShoppingWork, report: Report): ShoppingList {
    const of = frames.length + 1
    const wanted = frames.map(({ name, site, design }, done) => {
      report({ done, of })
      return { name, plan: planFrame(site, design, { catalogue }) }
    })
    report({ done: frames.length, of })
    return shoppingList(wanted, onHand, catalogue)
  },

  /** The cheapest way to cut what a design needs. */
  cut({ site, design, catalogue }: FitWork, _report: Report): CutPlan {
    const { wires, stock, takeOff } = planFrame(site, design, { catalogue })
    return { wires, stock, takeOff }
  },

  /** What to change for each check that does not hold. */
  advice({ site, design, ...context }: AdviceWork, _report: Report): AllAdvice {
    return adviseAll(site, design, context)
  },

  /** What a quick look could not prove to be best, for as long as one looks at a plant. */
  lay(instance: LayingInstance, _report: Report): LayingSolution {
    return solveLaying(instance, { deadlineMs: LAY_MS, now: () => performance.now() })
  },

  fits({ site, design: given, catalogue }: FitWork, report: Report): PricedFit[] {
    const design = { ...given, dragged: {} }
    const fits = fitLayouts(site, design.pattern, frameOptions(design, catalogue))
    return fits.map((fit, done) => {
      report({ done, of: fits.length })
      const { takeOff } = planFrame(site, { ...design, pattern: fit.pattern }, { catalogue })
      return { fit, cost: takeOff?.cost ?? null }
    })
  },
}

export type Background = typeof background
