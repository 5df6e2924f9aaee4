import type { ReactNode } from 'react'

/** Something that stops or warns, in place: what it is and what to change. */
export function Message({ tone, children }: { tone: 'limit' | 'due' | 'plain'; children: ReactNode }) {
  const bar = { limit: 'border-iron', due: 'border-ochre', plain: 'border-verdigris' }[tone]
  return (
    <div role={tone === 'limit' ? 'alert' : 'status'} className={`border-l-4 ${bar} bg-paper px-3 py-2`}>
      {children}
    </div>
  )
}

export function Loading({ children }: { children: ReactNode }) {
  return (
    <p role="status" className="p-8 text-slate">
      {children}
    </p>
  )
}
