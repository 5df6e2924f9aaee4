import Bowser from 'bowser'

const LONGEST_AGENT = 300

/** What is kept of how a browser calls itself. */
export const agentOf = (header: string | undefined): string => (header ?? '').slice(0, LONGEST_AGENT)

/** The browser and the system, as far as its name for itself tells; empty where it does not. */
export function deviceOf(agent: string): { readonly browser: string; readonly system: string } {
  if (agent === '') return { browser: '', system: '' }
  const { browser, os } = Bowser.parse(agent)
  return { browser: browser.name ?? '', system: os.name ?? '' }
}
