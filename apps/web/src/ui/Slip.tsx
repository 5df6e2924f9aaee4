import type { ReactNode } from 'react'

/** One slip of paper beside the drawing, on which consequences stand. */
export function Slip({ label, children }: { label: string; children: ReactNode }) {
  return (
    <aside aria-label={label} className="slip flex flex-col gap-4">
      {children}
    </aside>
  )
}

export function SlipGroup({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section>
      <h2 className="mb-1">{title}</h2>
      <dl>{children}</dl>
    </section>
  )
}

/**
 * A group whose content is not a list of figures alone; such lists stand in a `dl` of their own within it.
 */
export function SlipSection({
  title,
  id,
  children,
}: {
  title: string
  /** What leads here by it finds the focus here. */
  id?: string
  children: ReactNode
}) {
  return (
    <section {...(id === undefined ? {} : { id, tabIndex: -1 })}>
      <h2 className="mb-1">{title}</h2>
      {children}
    </section>
  )
}

interface SlipRowProps {
  readonly label: ReactNode
  readonly children: ReactNode
  /** The deciding figure of a group is bold, nothing else. */
  readonly isDeciding?: boolean
  readonly tone?: 'limit' | 'due' | 'sound' | undefined
}

const TONES = { limit: 'text-iron font-semibold', due: 'text-ochre font-semibold', sound: 'text-verdigris' }

export function SlipRow({ label, children, isDeciding, tone }: SlipRowProps) {
  return (
    <div className="slip-row">
      <dt>{label}</dt>
      <dd className={`${isDeciding ? 'font-bold' : ''} ${tone ? TONES[tone] : ''}`}>{children}</dd>
    </div>
  )
}
